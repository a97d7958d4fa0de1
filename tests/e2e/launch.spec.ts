import { createServer } from "node:net";
import { freePort, launch, TestServer } from "../support/server";
import { expect, test } from "./fixtures";

test("a second start of the same data names the running one; the port is remembered; a taken port is said", async () => {
  const server = new TestServer(await freePort());
  await server.start();
  const second = launch(server.folder, []);
  expect(await second.ended).toBe(0);
  expect(second.output()).toContain(`Already running with this data: ${server.url}`);
  await server.kill();

  // After a kill nothing is stale, and the data remembers its port.
  const again = launch(server.folder, []);
  await expect.poll(() => again.output()).toContain(`is running on ${server.url}`);
  again.child.kill("SIGTERM");
  await again.ended;

  const intruder = createServer();
  await new Promise<void>((resolve) => intruder.listen(server.port, "127.0.0.1", resolve));
  const blocked = launch(server.folder, []);
  expect(await blocked.ended).toBe(1);
  expect(blocked.output()).toContain(`Port ${server.port} is taken by another program`);
  expect(blocked.output()).toContain("-- --port");
  const other = await freePort();
  const moved = launch(server.folder, ["--port", String(other)]);
  await expect.poll(() => moved.output()).toContain(`is running on http://127.0.0.1:${other}`);
  expect(moved.output()).toContain(`last used on port ${server.port}`);
  moved.child.kill("SIGTERM");
  await moved.ended;
  await new Promise((resolve) => intruder.close(resolve));
  expect(await launch(server.folder, ["--port", "99"]).ended).toBe(1);
  await server.stop();
});
