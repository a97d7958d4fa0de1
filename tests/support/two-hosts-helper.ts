import { createSocket } from "node:dgram";
import { request as plainRequest } from "node:http";
import { Agent, request } from "node:https";
import type { TLSSocket } from "node:tls";
import { v4 as newId } from "uuid";
import type { SessionEvent } from "@/core/schemas";
import { ask, smallYard } from "./api";
import { type NetworkFacts, PASSPHRASE } from "./phone";

/** What runs inside a namespace for tests/faults/two-hosts: one word, its parameters, JSON out. */
const [what = "", ...given] = process.argv.slice(2);
const say = (value: object) => {
  process.stdout.write(JSON.stringify(value), () => process.exit(0));
};

/** Asks the network for the address of a name, as RFC 6762 says: from port 5353, heard by all. */
function find(name: string, own: string): Promise<string | null> {
  const labels = Buffer.concat([
    ...name.split(".").flatMap((label) => [Buffer.from([label.length]), Buffer.from(label)]),
    Buffer.from([0]),
  ]);
  const head = Buffer.from([0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0]);
  const question = Buffer.concat([head, labels, Buffer.from([0, 1, 0, 1])]);
  const socket = createSocket({ type: "udp4", reuseAddr: true });
  return new Promise((resolve) => {
    const done = (address: string | null) => {
      socket.close();
      resolve(address);
    };
    const timer = setTimeout(() => done(null), 3000);
    socket.on("message", (message, from) => {
      const at = message.indexOf(labels, 12);
      if ((message.readUInt8(2) & 0x80) === 0 || at < 0 || from.address === own) return;
      const record = at + labels.length;
      if (message.readUInt16BE(record) !== 1) return;
      clearTimeout(timer);
      done([...message.subarray(record + 10, record + 14)].join("."));
    });
    socket.bind(5353, () => {
      socket.addMembership("224.0.0.251", own);
      socket.setMulticastInterface(own);
      socket.send(question, 5353, "224.0.0.251");
      setTimeout(() => socket.send(question, 5353, "224.0.0.251"), 700).unref();
    });
  });
}

function authority(address: string, { host, joinPort }: NetworkFacts): Promise<string> {
  return new Promise((resolve, reject) => {
    const asked = plainRequest({ host: address, port: joinPort, path: "/authority.crt", headers: { host }, timeout: 8000 }, (response) => {
      const pieces: Buffer[] = [];
      response.on("data", (piece: Buffer) => pieces.push(piece));
      response.on("end", () =>
        resolve(
          `-----BEGIN CERTIFICATE-----\n${Buffer.concat(pieces)
            .toString("base64")
            .replace(/(.{64})/g, "$1\n")}\n-----END CERTIFICATE-----\n`,
        ),
      );
    });
    asked.once("timeout", () => asked.destroy(new Error("no answer")));
    asked.once("error", reject);
    asked.end();
  });
}

/** One request over the secured line. @throws where no answer comes in time. */
function overTls(
  address: string,
  network: NetworkFacts,
  ca: string,
  asked: { method: string; path: string; body?: object; cookie?: string },
): Promise<{ status: number; text: string; cookies: string[]; names: string }> {
  const text = asked.body === undefined ? undefined : JSON.stringify(asked.body);
  return new Promise((resolve, reject) => {
    const sent = request(
      {
        host: address,
        port: network.port,
        servername: network.host,
        ca,
        agent: new Agent({ maxCachedSessions: 0 }),
        method: asked.method,
        path: asked.path,
        timeout: 4000,
        headers: {
          host: `${network.host}:${network.port}`,
          ...(text === undefined ? {} : { "content-type": "application/json", "content-length": String(Buffer.byteLength(text)) }),
          ...(asked.cookie === undefined ? {} : { cookie: asked.cookie }),
        },
      },
      (response) => {
        const names = (response.socket as TLSSocket).getPeerCertificate().subjectaltname ?? "";
        let got = "";
        response.setEncoding("utf8");
        response.on("data", (piece: string) => {
          got += piece;
        });
        response.once("error", reject);
        response.on("end", () =>
          resolve({ status: response.statusCode ?? 0, text: got, cookies: response.headers["set-cookie"] ?? [], names }),
        );
      },
    );
    sent.once("timeout", () => sent.destroy(new Error("no answer")));
    sent.once("error", reject);
    if (text !== undefined) sent.write(text);
    sent.end();
  });
}

/** Tries until an answer comes: the line loses. */
async function insist<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++)
    try {
      return await work();
    } catch (error) {
      if (tries > 60) throw error;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
}

const commands: Record<string, () => Promise<object>> = {
  /** On the yard's side: a horse, people, the network on. */
  open: async () => {
    const [url = ""] = given;
    const yard = await smallYard(url);
    const { value: person } = await ask(url, "POST", "/api/people", { name: "Olga", role: "handler" });
    await ask(url, "PUT", `/api/people/${person.id}/access`, { access: "owner", passphrase: PASSPHRASE });
    const { value: network } = await ask<NetworkFacts>(url, "PUT", "/api/network", { on: true });
    const { value: care } = await ask<{ file: string }>(url, "GET", "/api/store");
    return { yard, network, file: care.file, session: yard.session };
  },
  network: async () => (await ask<NetworkFacts>(given[0] ?? "", "GET", "/api/network")).value,
  find: async () => ({ address: await find(given[0] ?? "", given[1] ?? "") }),
  check: async () => {
    const network = JSON.parse(given[1] ?? "") as NetworkFacts;
    const ca = await insist(() => authority(given[0] ?? "", network));
    const { status, names } = await insist(() => overTls(given[0] ?? "", network, ca, { method: "GET", path: "/trust-check" }));
    return { status, names };
  },
  /** On the phone's side: taps for so many seconds, each batch sent until it is confirmed, some of them twice and shuffled. */
  tap: async () => {
    const [address = "", networkText = "", yardText = "", seconds = "10"] = given;
    const network = JSON.parse(networkText) as NetworkFacts;
    const yard = JSON.parse(yardText) as { store: string; session: string };
    const ca = await insist(() => authority(address, network));
    const signed = await insist(() =>
      overTls(address, network, ca, { method: "POST", path: "/api/sign-in", body: { name: "Olga", passphrase: PASSPHRASE } }),
    );
    const cookie = signed.cookies.map((line) => line.split(";", 1)[0]).join("; ");
    const { recorder } = JSON.parse(signed.text) as { recorder: string };
    const load = newId();
    const log: SessionEvent[] = [];
    let waiting: SessionEvent[] = [];
    let sends = 0;
    let failed = 0;
    const end = Date.now() + Number(seconds) * 1000;
    while (Date.now() < end || waiting.length > 0) {
      if (Date.now() < end)
        for (let i = 0; i < 4; i++) {
          const seq = log.length;
          const event = {
            id: newId(),
            session: yard.session,
            recorder,
            load,
            seq,
            mono_ms: seq * 10,
            wall_ms: Date.now(),
            type: "trial",
            payload: { outcome: seq % 3 === 0 ? "try" : "met", phase: 1 },
          } as SessionEvent;
          log.push(event);
          waiting.push(event);
        }
      const batch = waiting.slice(0, 60);
      // Sent twice and in another order now and then: still each is there once.
      const events = sends % 3 === 2 ? [...batch, ...batch].sort(() => Math.random() - 0.5) : batch;
      sends++;
      try {
        const { status } = await overTls(address, network, ca, {
          method: "POST",
          path: "/api/events",
          cookie,
          body: { store: yard.store, recorder, clocks: {}, events },
        });
        if (status === 200) waiting = waiting.slice(batch.length);
        else failed++;
      } catch {
        failed++;
      }
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    return { log, sends, failed };
  },
};

commands[what]?.().then(say, (error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.stack : error}\n`);
  process.exit(1);
});
