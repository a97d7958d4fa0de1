import { request } from "node:https";
import { ask } from "./api";
import type { TestServer } from "./server";

/** What came back over the secured line. */
export interface PhoneAnswer {
  readonly status: number;
  readonly headers: NodeJS.Dict<string | string[]>;
  readonly text: string;
  readonly json: () => Record<string, unknown>;
}

interface Asked {
  readonly method?: string;
  readonly path: string;
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
  /** Sent as it is, in place of JSON. */
  readonly raw?: string;
}

export const PASSPHRASE = "four words do well";

/** The network as the page tells it. */
export interface NetworkFacts {
  readonly on: boolean;
  readonly host: string;
  readonly port: number;
  readonly joinPort: number;
  readonly fingerprint: string | null;
}

/** Makes people with access and turns the network on, from the machine itself. */
export async function openNetwork(server: TestServer): Promise<NetworkFacts> {
  for (const [name, access] of [
    ["Olga", "owner"],
    ["Hilda", "helper"],
  ]) {
    const { value } = await ask(server.url, "POST", "/api/people", { name, role: "handler" });
    const given = await ask(server.url, "PUT", `/api/people/${value.id}/access`, { access, passphrase: PASSPHRASE });
    if (given.status !== 200) throw new Error(JSON.stringify(given.value));
  }
  const { status, value } = await ask<NetworkFacts>(server.url, "PUT", "/api/network", { on: true });
  if (status !== 200 || !value.on) throw new Error(`The network did not open: ${JSON.stringify(value)}`);
  return value;
}

/** The authority's certificate, as a phone gets it before it trusts anything. */
export async function authorityOf(network: NetworkFacts): Promise<Buffer> {
  const { request: plain } = await import("node:http");
  return new Promise((resolve, reject) => {
    plain(
      { host: "127.0.0.1", port: network.joinPort, path: "/authority.crt", headers: { host: `${network.host}:${network.joinPort}` } },
      (response) => {
        const pieces: Buffer[] = [];
        response.on("data", (piece: Buffer) => pieces.push(piece));
        response.on("end", () => resolve(Buffer.concat(pieces)));
      },
    )
      .once("error", reject)
      .end();
  });
}

const pem = (der: Buffer) =>
  `-----BEGIN CERTIFICATE-----\n${der.toString("base64").replace(/(.{64})/g, "$1\n")}\n-----END CERTIFICATE-----\n`;

/** A phone without a browser: it trusts the authority, keeps its cookies, and says where it comes from. */
export class Phone {
  readonly cookies = new Map<string, string>();

  private constructor(
    readonly network: NetworkFacts,
    private readonly ca: string,
  ) {}

  static async of(network: NetworkFacts): Promise<Phone> {
    return new Phone(network, pem(await authorityOf(network)));
  }

  get origin(): string {
    return `https://${this.network.host}:${this.network.port}`;
  }

  ask({ method = "GET", path, body, headers = {}, raw }: Asked): Promise<PhoneAnswer> {
    const { host, port } = this.network;
    const text = raw ?? (body === undefined ? undefined : JSON.stringify(body));
    return new Promise((resolve, reject) => {
      const asked = request(
        {
          host: "127.0.0.1",
          port,
          servername: host,
          ca: this.ca,
          method,
          path,
          agent: false,
          headers: {
            host: `${host}:${port}`,
            ...(text === undefined ? {} : { "content-type": "application/json", "content-length": String(Buffer.byteLength(text)) }),
            ...(this.cookies.size === 0 ? {} : { cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join("; ") }),
            ...headers,
          },
        },
        (response) => {
          let got = "";
          response.setEncoding("utf8");
          response.on("data", (piece: string) => {
            got += piece;
          });
          response.on("end", () => {
            for (const line of response.headers["set-cookie"] ?? []) {
              const [, name = "", value = ""] = /^([^=]+)=([^;]*)/.exec(line) ?? [];
              if (value === "") this.cookies.delete(name);
              else this.cookies.set(name, value);
            }
            resolve({
              status: response.statusCode ?? 0,
              headers: response.headers,
              text: got,
              json: () => JSON.parse(got) as Record<string, unknown>,
            });
          });
        },
      );
      asked.setTimeout(20_000, () => asked.destroy(new Error("no answer")));
      asked.once("error", reject);
      if (text !== undefined) asked.write(text);
      asked.end();
    });
  }

  /** Signs in as somebody. @returns under which name taps are logged then. */
  async signIn(name: string, passphrase = PASSPHRASE): Promise<string> {
    const { status, text, json } = await this.ask({ method: "POST", path: "/api/sign-in", body: { name, passphrase } });
    if (status !== 200) throw new Error(`${name} was not let in: ${status} ${text}`);
    return String(json().recorder);
  }

  /** Opens a line that stays open and collects what comes over it. */
  follow(path: string): { readonly lines: string[]; readonly close: () => void } {
    const { host, port } = this.network;
    const lines: string[] = [];
    const asked = request(
      {
        host: "127.0.0.1",
        port,
        servername: host,
        ca: this.ca,
        path,
        agent: false,
        headers: { host: `${host}:${port}`, cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join("; ") },
      },
      (response) => {
        response.setEncoding("utf8");
        response.on("data", (piece: string) => lines.push(piece));
      },
    );
    asked.on("error", () => undefined);
    asked.end();
    return { lines, close: () => asked.destroy() };
  }
}
