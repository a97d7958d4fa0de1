import { createServer, request, type Server } from "node:http";
import { afterEach, describe, expect, it, vi } from "vitest";
import { addressProblem, gated, type Handler, refuseUpgrade } from "./gate";

let server: Server | null = null;
afterEach(() => {
  server?.close();
  server = null;
});

async function serving(handle: Handler): Promise<number> {
  const made = createServer(gated(handle));
  made.on("upgrade", refuseUpgrade);
  await new Promise<void>((resolve) => made.listen(0, "127.0.0.1", () => resolve()));
  server = made;
  const address = made.address();
  if (address === null || typeof address === "string") throw new Error("no port");
  return address.port;
}

const get = (port: number, path: string, headers: Record<string, string> = {}) =>
  new Promise<{ status: number; text: string; headers: Record<string, unknown> }>((resolve, reject) => {
    const sent = request({ port, host: "127.0.0.1", path, headers, agent: false }, (response) => {
      let text = "";
      response.on("data", (piece) => {
        text += piece;
      });
      response.on("error", reject);
      response.on("end", () => resolve({ status: response.statusCode ?? 0, text, headers: response.headers }));
    });
    sent.on("error", reject);
    sent.end();
  });

describe("an address", () => {
  it.each(["/a%00b", "/%", "/%zz", "/x?after=%00", "/%0a"])("%s is refused", (url) => expect(addressProblem(url)).not.toBeNull());
  it.each(["/", "/horses/N%C3%AD", "/x?q=%25", "/x?q=%zz"])("%s is taken", (url) => expect(addressProblem(url)).toBeNull());
});

describe("every request", () => {
  it("is answered where its handler throws, before or after it began to answer", async () => {
    const said = vi.spyOn(console, "error").mockReturnValue(undefined);
    const port = await serving(async (request, response) => {
      if (request.url === "/late") response.write("half");
      throw new Error("a fault");
    });
    expect((await get(port, "/early")).status).toBe(500);
    await expect(get(port, "/late")).rejects.toThrow();
    expect(said).toHaveBeenCalledTimes(2);
    said.mockRestore();
  });

  it("to a route carries the headers pages have", async () => {
    const port = await serving(async (_, response) => void response.end("{}"));
    expect((await get(port, "/api/x")).headers).toMatchObject({
      "x-content-type-options": "nosniff",
      "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
    });
    expect((await get(port, "/page")).headers["content-security-policy"]).toBeUndefined();
  });

  it("for a page under another name is led to the printed address; data and files are not, and nobody else can say where to", async () => {
    const port = await serving(async (request, response) => void response.end(`${request.url} ${request.headers["x-moved-to"]}`));
    const text = async (path: string, host: string) => (await get(port, path, { host, "x-moved-to": "http://evil.example" })).text;
    expect(await text("/people?x=1", `localhost:${port}`)).toBe(`/moved http://127.0.0.1:${port}/people?x=1`);
    expect(await text("/people", `[::1]:${port}`)).toBe(`/moved http://127.0.0.1:${port}/people`);
    expect(await text("/people", `127.0.0.1:${port}`)).toBe("/people undefined");
    expect(await text("/api/clock", `localhost:${port}`)).toBe("/api/clock undefined");
    expect(await text("/icon.svg?v=2", `localhost:${port}`)).toBe("/icon.svg?v=2 undefined");
    expect(await text("/people", "evil.example")).toBe("/people undefined");
  });
});
