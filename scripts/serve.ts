import { mkdirSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { Server as SecureServer } from "node:https";
import { createRequire } from "node:module";
import { dirname } from "node:path";
import { dayIn } from "@/core/day";
import { populateDemo } from "@/demo/populate";
import { Network } from "@/network";
import {
  catchUp,
  closeStore,
  closeToOthers,
  copyOfDay,
  hasOwner,
  hasSampleData,
  listHorses,
  makeForOwnerAlone,
  openStore,
  purgeExpired,
  readMeta,
  removeStoreFile,
  type Store,
  storeFile,
  timeSeen,
  writeMeta,
} from "@/store";
import { gated, type Handler, refuseUpgrade } from "./gate";
import { HeldStore } from "./held-store";
import { portInUse, takeLock } from "./lock";
import { networkGate, stillSignedIn } from "./network-gate";
import { readApart } from "./read-apart";
import { fail, saidPlainly, sentenceOf } from "./said";
import { answerLive, answerTaps, isLive, isTaps } from "./short-way";
import { showTrouble } from "./trouble-page";

/** So many sessions behind their events are summed up in passing. */
const FEW_BEHIND = 20;

/** What has been in the bin for too long is swept out this often, also by a server that runs for months. */
const SWEEP_EVERY_MS = 6 * 3_600_000;

/** The day's copy is made so long after the start, and looked for so often. */
const FIRST_COPY_MS = 60_000;
const COPY_LOOK_MS = 3_600_000;

const root = process.cwd();
const kind = process.argv.includes("--demo") ? "demo" : "own";
const fresh = process.argv.includes("--fresh");
const say = (text: string) => process.stdout.write(`${text}\n`);
const DEFAULT_PORT = { own: 4370, demo: 4371 } as const;

function chosenPort(): number | null {
  const at = process.argv.indexOf("--port");
  const text = at >= 0 ? process.argv[at + 1] : process.env.DEFT_PORT;
  if (text === undefined || text === "") return null;
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1024 || port > 65_535) fail(`The port must be a number from 1024 to 65535, not “${text}”.`);
  return port;
}

const listen = (server: Server, port: number) =>
  new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", () => resolve());
  });

/** The data of this start, locked and open. */
async function openData(): Promise<{ store: Store; lock: Extract<Awaited<ReturnType<typeof takeLock>>, { taken: true }> }> {
  const file = storeFile(kind, root);
  makeForOwnerAlone();
  mkdirSync(dirname(file), { recursive: true });
  const lock = await takeLock(file);
  const running = (port: number | undefined): never => {
    if (fresh) fail("The demo is running; stop it first, then remake it with --fresh.");
    say(
      port === undefined
        ? "This data is being opened by another start of Deft Tether. Try again in a moment."
        : `Already running with this data: http://127.0.0.1:${port}`,
    );
    process.exit(port === undefined ? 1 : 0);
  };
  if (!lock.taken) return running(lock.holder?.port);
  if (fresh && kind === "demo") removeStoreFile(file);
  const fill = async (store: Store) => {
    say("Making the demo yard.");
    const made = await populateDemo(store, Date.now());
    say(`The demo yard holds ${made.sessions} sessions and ${made.events} events, all invented.`);
  };
  const store = await openStore(file, Date.now, { say, ...(kind === "demo" ? { fill } : {}) });
  if (!(await lock.alsoTheFile())) return running(undefined);
  for (const line of closeToOthers(file)) say(line);
  // A demo of an earlier version that was cut off before its yard was made.
  const empty = kind === "demo" && !(await hasSampleData(store)) && (await listHorses(store)).length === 0;
  if (empty && (await readMeta(store, "sample_removed")) === null) await fill(store);
  process.env.DEFT_STORE_FILE = file;
  return { store, lock };
}

async function serve(): Promise<void> {
  const { store, lock } = await openData();
  const remembered = Number(await readMeta(store, "port")) || null;
  const asked = chosenPort();
  const port = asked ?? remembered ?? DEFAULT_PORT[kind];
  if (asked !== null && remembered !== null && asked !== remembered) {
    say(
      `This data was last used on port ${remembered}. On another port the browser cannot see taps that were not yet sent from there; open port ${remembered} once more if any are missing.`,
    );
  }
  if (await portInUse(port)) {
    await closeStore(store);
    lock.release();
    fail(
      `Port ${port} is taken by another program, so Deft Tether did not start. Nothing was changed.`,
      `Stop that program, or choose another port: npm run ${kind === "demo" ? "demo" : "start"} -- --port ${port + 10}`,
      "A browser keeps unsent taps for one port alone: if some are waiting, free this port rather than choose another.",
    );
  }
  try {
    await writeMeta(store, "port", String(port));
  } catch {
    // What is there can still be read; the recorder says by itself when taps cannot be saved.
    say("The data cannot be written just now: the disk may be full or held by another program. What is there can be looked at.");
  }
  lock.announce({ port, pid: process.pid });
  await sumUpMany(store);

  process.env.NEXT_TELEMETRY_DISABLED = "1";
  Object.assign(process.env, { NODE_ENV: "production" });
  const next = createRequire(import.meta.url)("next") as (options: object) => {
    prepare(): Promise<void>;
    getRequestHandler(): (request: unknown, response: unknown) => Promise<void>;
  };
  Object.assign(globalThis, { deftReadApart: readApart });
  const app = next({ dev: false, dir: root, hostname: "127.0.0.1", port });
  await app.prepare();
  const pages = app.getRequestHandler();
  const held = new HeldStore(store, { say });
  const handle: Handler = (request, response) =>
    isTaps(request)
      ? answerTaps(held.store, held.signIns, request, response)
      : isLive(request)
        ? answerLive(held.live, request, response, stillSignedIn(held, request))
        : pages(request, response);
  const server = createServer(gated(held.during(handle)));
  const prepare = (one: Server | SecureServer) => {
    one.on("upgrade", refuseUpgrade);
    // Longer than any client waits between two requests: a connection closed just as it is used again is an error there.
    one.keepAliveTimeout = 75_000;
    // A request that never finishes its headers or body must not hold a socket for ever.
    one.headersTimeout = 20_000;
    one.requestTimeout = 60_000;
  };
  prepare(server);
  const network: Network = new Network({
    dataFolder: dirname(storeFile(kind, root)),
    storeId: store.id,
    port,
    prepare,
    handle: (request, response) => gated(held.during(networkGate(network, held, handle)), "network")(request, response),
  });
  Object.assign(globalThis, { deftNetwork: network, deftStoreKeeper: held });
  try {
    await listen(server, port);
  } catch {
    fail(`Port ${port} was taken just now by another program. Start again, or choose another: -- --port ${port + 10}`);
  }
  say(`Deft Tether is running on http://127.0.0.1:${port}`);
  say(kind === "demo" ? "This is the demo yard: invented data in its own file. Stop with Ctrl+C." : "Your own data. Stop with Ctrl+C.");
  if (process.argv.includes("--lan") || (await readMeta(store, "network")) === "on") await openNetwork(store, network, port);
  store.caches.catchUp();
  // By the time the program has seen go by: one reading of a clock that runs ahead removes nothing.
  const sweep = () =>
    void timeSeen(held.store)
      .then((seenMs) => purgeExpired(held.store, seenMs))
      .catch((error: unknown) => console.error(error));
  sweep();
  setInterval(sweep, SWEEP_EVERY_MS).unref();
  const copy = () =>
    void copyOfDay(held.store, dayIn(held.store.now(), held.store.timeZone)).catch((error: unknown) =>
      console.error("The daily copy could not be made.", error),
    );
  // Not in the first moments, when everybody wants a page; then whenever a day has begun.
  setTimeout(copy, FIRST_COPY_MS).unref();
  setInterval(copy, COPY_LOOK_MS).unref();

  const stop = () => {
    void network.turnOff();
    server.close(() => void closeStore(held.store).finally(() => process.exit(0)));
    server.closeAllConnections();
  };
  process.once("SIGINT", stop);
  process.once("SIGTERM", stop);
}

/** Serves the local network, where somebody could sign in there. */
async function openNetwork(store: Store, network: Network, port: number): Promise<void> {
  if (!(await hasOwner(store))) {
    say(`The network is off: nobody could sign in. Give one person the owner's access first, on http://127.0.0.1:${port}/network`);
    return;
  }
  await network.turnOn();
  const { on, host, port: secure, joinPort, addresses, problem } = network.state();
  if (problem !== null) say(problem);
  if (!on) return;
  say(`On the local network: https://${host}:${secure}`);
  say(`A phone begins here: http://${addresses[0] ?? host}:${joinPort} or by the code on http://127.0.0.1:${port}/network`);
}

/** After a change of version all sums are made anew: better before the doors open than page by page behind them. */
async function sumUpMany(store: Store): Promise<void> {
  const behind = await store.models.stale.count();
  if (behind <= FEW_BEHIND) return;
  say(`The sums of ${behind} sessions are made anew, once.`);
  let said = 0;
  try {
    await catchUp(store, (done) => {
      if (done - said < behind / 5) return;
      said = done;
      say(`${done} of ${behind} done.`);
    });
  } catch (error) {
    // The pages work them out by themselves, as far as that goes.
    console.error(error);
  }
}

/** Where the data cannot be opened, whoever sits here also finds the reason in the browser; a program that started this one gets its end. */
async function serveOrSay(): Promise<void> {
  try {
    await serve();
  } catch (error) {
    const sentence = sentenceOf(error);
    const file = storeFile(kind, root);
    const shown = sentence !== null && (process.stdin.isTTY || process.argv.includes("--page"));
    if (!shown || !(await showTrouble(sentence, file, kind === "demo", chosenPort() ?? DEFAULT_PORT[kind]))) throw error;
    process.stderr.write(
      `${sentence}\nThe same stands on http://127.0.0.1:${chosenPort() ?? DEFAULT_PORT[kind]} until this is stopped with Ctrl+C.\n`,
    );
  }
}

await saidPlainly(serveOrSay);
