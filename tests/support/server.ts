import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = fileURLToPath(new URL("../..", import.meta.url));

/** The version under test: this one, or the folder of another, to see a check fail there. */
const UNDER_TEST = process.env.DEFT_UNDER_TEST ?? ROOT;

/** A port nothing listens on at the moment. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => (typeof address === "object" && address !== null ? resolve(address.port) : reject(new Error("no port"))));
    });
  });
}

/** What a started process said and how it ended. */
export interface Started {
  readonly child: ChildProcess;
  readonly output: () => string;
  /** Resolves with the exit code. */
  readonly ended: Promise<number | null>;
}

/** Starts the launcher as a person would. */
export const launch = (folder: string, parameters: readonly string[], environment: object = {}): Started =>
  run("start.mjs", folder, parameters, environment);

/** Runs one of the command lines on the data of a folder. */
export const runCommand = (name: string, folder: string, parameters: readonly string[]): Started =>
  run("run.mjs", folder, [name, ...parameters]);

function run(script: string, folder: string, parameters: readonly string[], environment: object = {}): Started {
  const child = spawn(process.execPath, [`scripts/${script}`, ...parameters], {
    cwd: UNDER_TEST,
    env: { ...process.env, DEFT_DATA: folder, DEFT_PORT: "", ...environment },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let text = "";
  child.stdout?.on("data", (piece) => {
    text += piece;
  });
  child.stderr?.on("data", (piece) => {
    text += piece;
  });
  const ended = new Promise<number | null>((resolve) => child.once("exit", (code) => resolve(code)));
  return { child, output: () => text, ended };
}

/** A server of its own for a test, on data of its own. */
export class TestServer {
  private started: Started | null = null;
  readonly folder: string;

  constructor(
    readonly port: number,
    private readonly kind: "own" | "demo" = "own",
    folder?: string,
  ) {
    this.folder = folder ?? mkdtempSync(join(tmpdir(), "deft-e2e-"));
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Of the running program; 0 where none runs. */
  get pid(): number {
    return this.started?.child.pid ?? 0;
  }

  get file(): string {
    return join(this.folder, `${this.kind}.sqlite`);
  }

  async start(): Promise<void> {
    const started = launch(this.folder, [...(this.kind === "demo" ? ["--demo"] : []), "--port", String(this.port)]);
    this.started = started;
    const until = Date.now() + 180_000;
    while (!started.output().includes("is running on")) {
      if (Date.now() > until || started.child.exitCode !== null) throw new Error(`The server did not start:\n${started.output()}`);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }

  /** Ends the process at once, without a chance to tidy up. */
  async kill(): Promise<void> {
    this.started?.child.kill("SIGKILL");
    await this.started?.ended;
    this.started = null;
  }

  /** Ends the process as a person does; its data stays. */
  async stopKeeping(): Promise<void> {
    this.started?.child.kill("SIGTERM");
    await this.started?.ended;
    this.started = null;
  }

  async stop(): Promise<void> {
    this.started?.child.kill("SIGTERM");
    await this.started?.ended;
    this.started = null;
    rmSync(this.folder, { recursive: true, force: true });
  }
}
