import { randomBytes } from "node:crypto";
import { createServer as createPlain, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from "node:http";
import { createServer as createSecure, type Server as SecureServer } from "node:https";
import { ownName, privateAddresses } from "./addresses";
import { announce } from "./announce";
import { Certifier, forgetAuthority, type Leaf, leafIsStale } from "./authority";
import { trustPage } from "./trust-page";

/** The way from the network to this machine, as a page shows it. */
export interface NetworkState {
  readonly on: boolean;
  /** "deft-75bd.local" */
  readonly host: string;
  readonly port: number;
  /** Where a phone is led first, over plain http. */
  readonly joinPort: number;
  readonly addresses: readonly string[];
  /** Whether the name is answered for on the network. */
  readonly named: boolean;
  readonly fingerprint: string | null;
  readonly untilMs: number | null;
  /** Why it is not on though it should be, or not found by name; null where nothing is wrong. */
  readonly problem: string | null;
}

export interface NetworkOptions {
  readonly dataFolder: string;
  readonly storeId: string;
  readonly port: number;
  /** What is answered over the secured line; what it may answer is its own matter. */
  readonly handle: RequestListener;
  readonly prepare?: (server: SecureServer) => void;
  readonly now?: () => number;
  readonly addresses?: () => string[];
  /** Where there is no multicast, or in a test. */
  readonly announced?: typeof announce;
}

/** Routers deal out numbers when they like: this machine's are looked at so often. */
const LOOK_EVERY_MS = 15_000;

const listening = (server: Server | SecureServer, port: number) =>
  new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "0.0.0.0", () => {
      server.off("error", reject);
      resolve();
    });
  });

const closed = (server: Server | SecureServer | null) =>
  new Promise<void>((resolve) => {
    if (server === null) return resolve();
    server.close(() => resolve());
    server.closeAllConnections();
  });

/** Serves the local network over https under a certificate of this machine's own, and leads phones to trust it. Off until it is turned on. */
export class Network {
  readonly name: string;
  private certifier: Certifier | null = null;
  private leaf: Leaf | null = null;
  private secure: SecureServer | null = null;
  private plain: Server | null = null;
  private quiet: (() => Promise<void>) | null = null;
  private timer: ReturnType<typeof setInterval> | null = null;
  private current: readonly string[] = [];
  private problem: string | null = null;
  private turning: Promise<unknown> = Promise.resolve();

  constructor(private readonly options: NetworkOptions) {
    this.name = ownName(options.storeId);
  }

  private get host(): string {
    return `${this.name}.local`;
  }
  private get port(): number {
    return this.options.port + 10;
  }
  private get joinPort(): number {
    return this.options.port + 20;
  }
  private now(): number {
    return (this.options.now ?? Date.now)();
  }

  state(): NetworkState {
    const authority = this.certifier?.authority;
    return {
      on: this.secure !== null,
      host: this.host,
      port: this.port,
      joinPort: this.joinPort,
      addresses: this.current,
      named: this.quiet !== null,
      fingerprint: authority?.fingerprint ?? null,
      untilMs: authority?.untilMs ?? null,
      problem: this.problem,
    };
  }

  /** Whether a host named in a request is this machine on this network. */
  isOwnHost(host: string): boolean {
    const port = `:${this.port}`;
    return host.endsWith(port) && [this.host, ...this.current].includes(host.slice(0, -port.length).toLowerCase());
  }

  /** One change after another, so that on and off pressed quickly end as they were pressed last. */
  private turn(work: () => Promise<void>): Promise<void> {
    const next = this.turning.then(work, work);
    this.turning = next.catch(() => undefined);
    return next;
  }

  turnOn(): Promise<void> {
    return this.turn(() => this.start());
  }

  turnOff(): Promise<void> {
    return this.turn(() => this.stop());
  }

  private async start(): Promise<void> {
    if (this.secure !== null) return;
    this.problem = null;
    this.current = this.lookUp();
    this.certifier = await Certifier.open(this.options.dataFolder, this.name, this.now());
    this.leaf = await this.certifier.leaf([this.host], this.current, this.now());
    const secure = createSecure({ key: this.leaf.key, cert: this.leaf.certificate, minVersion: "TLSv1.2" }, this.options.handle);
    this.options.prepare?.(secure);
    const plain = createPlain((request, response) => this.lead(request, response));
    plain.headersTimeout = 10_000;
    plain.requestTimeout = 10_000;
    for (const [server, port] of [
      [secure, this.port],
      [plain, this.joinPort],
    ] as const) {
      try {
        await listening(server, port);
      } catch {
        await Promise.all([closed(secure), closed(plain)]);
        this.problem = `Port ${port} is taken by another program, so the network cannot be served. Stop that program and turn it on again.`;
        return;
      }
    }
    this.secure = secure;
    this.plain = plain;
    this.timer = setInterval(() => void this.turn(() => this.look()), LOOK_EVERY_MS);
    this.timer.unref();
    await this.makeKnown();
  }

  /** Answers for the name on the networks there are now. */
  private async makeKnown(): Promise<void> {
    await this.quiet?.().catch(() => undefined);
    this.quiet = null;
    this.problem = null;
    if (this.current.length === 0) {
      this.problem = "This machine is in no local network at the moment.";
      return;
    }
    try {
      this.quiet = await (this.options.announced ?? announce)(this.name, this.port, this.current);
    } catch {
      this.problem = "The name could not be made known on this network; phones use the number.";
    }
  }

  private async stop(): Promise<void> {
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
    const { quiet, secure, plain } = this;
    this.quiet = null;
    this.secure = null;
    this.plain = null;
    this.problem = null;
    await Promise.all([quiet?.().catch(() => undefined), closed(secure), closed(plain)]);
  }

  private lookUp(): string[] {
    return (this.options.addresses ?? privateAddresses)();
  }

  /** A new number, or a certificate near its end: another leaf, on the open server. Lines that are open stay so. */
  private async look(): Promise<void> {
    const { secure, certifier, leaf } = this;
    if (secure === null || certifier === null || leaf === null) return;
    const addresses = this.lookUp();
    if (!leafIsStale(leaf, addresses, this.now())) return;
    this.leaf = await certifier.leaf([this.host], addresses, this.now());
    const moved = addresses.join(" ") !== this.current.join(" ");
    this.current = addresses;
    secure.setSecureContext({ key: this.leaf.key, cert: this.leaf.certificate, minVersion: "TLSv1.2" });
    if (moved) await this.makeKnown();
  }

  /** Looks at the address and the certificate now. */
  renew(): Promise<void> {
    return this.turn(() => this.look());
  }

  /** Everything taken back: off, and the authority with its key gone. Phones that trust it trust nothing any more. */
  forget(): Promise<boolean> {
    let there = false;
    return this.turn(async () => {
      await this.stop();
      this.certifier = null;
      this.leaf = null;
      there = forgetAuthority(this.options.dataFolder);
    }).then(() => there);
  }

  /** The plain page that leads a phone to trust: no data, no cookies, nothing else. */
  private lead(request: IncomingMessage, response: ServerResponse): void {
    const authority = this.certifier?.authority;
    const path = (request.url ?? "/").split("?", 1)[0];
    const name = (request.headers.host ?? "").toLowerCase().replace(/:\d+$/, "");
    const head = { "cache-control": "no-store", "x-content-type-options": "nosniff", "referrer-policy": "no-referrer" };
    if (authority === undefined || request.method !== "GET" || ![this.host, ...this.current].includes(name)) {
      response.writeHead(authority === undefined ? 503 : request.method === "GET" ? 421 : 405, { ...head, "content-type": "text/plain" });
      response.end("Not here.");
      return;
    }
    if (path === "/authority.crt") {
      response.writeHead(200, {
        ...head,
        "content-type": "application/x-x509-ca-cert",
        "content-disposition": 'attachment; filename="deft-tether.crt"',
      });
      response.end(authority.certificate);
      return;
    }
    if (path !== "/") {
      response.writeHead(302, { ...head, location: "/" });
      response.end();
      return;
    }
    const nonce = randomBytes(16).toString("base64");
    const reach = [this.host, ...this.current].map((host) => `https://${host}:${this.port}`).join(" ");
    response.writeHead(200, {
      ...head,
      "content-type": "text/html; charset=utf-8",
      "content-security-policy": `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; connect-src ${reach}; base-uri 'none'; form-action 'none'; frame-ancestors 'none'`,
    });
    response.end(trustPage({ host: this.host, port: this.port, addresses: this.current, fingerprint: authority.fingerprint, nonce }));
  }
}
