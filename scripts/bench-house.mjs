// Part of npm run bench: a yard of ten years, made by the simulated learner, and every page asked of it.
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { performance } from "node:perf_hooks";

/** Trials of the yards that are made, with 40 horses in each. */
export const HOUSE_SIZES = [10_000, 100_000, 1_000_000];
const ASKED = 24;
/** How many times its rows' own reading a page may take, beside what an empty page takes. */
const READ_TIMES = 8;
/** And how many times what an empty page takes, whatever it reads: 150 ms where that takes 12. */
const EMPTY_TIMES = 12.5;
const PAGE_KB = 250;
const SERVER_MB = 400;
/** How many times the bare reading of all events the caches may take; a small yard is summed up before the program is warm. */
const REBUILT_TIMES = 2.5;
const REBUILT_TIMES_COLD = 6;
const WARM_TRIALS = 100_000;
const BYTES_PER_TRIAL = 1200;

const run = (parameters, more = []) => {
  const child = spawnSync(process.execPath, [...more, "scripts/run.mjs", ...parameters], {
    stdio: ["ignore", "pipe", "ignore"],
    maxBuffer: 1 << 26,
  });
  if (child.status !== 0) throw new Error(`${parameters[0]} did not end well`);
  return JSON.parse(child.stdout.toString());
};

const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/** The addresses of every page of some horses, by the page's name. */
async function addressesOf(file) {
  const { default: sqlite3 } = await import("sqlite3");
  const database = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
  const all = (sql) =>
    new Promise((resolve, reject) => database.all(sql, (error, rows) => (error === null ? resolve(rows) : reject(error))));
  const horses = await all(
    `SELECT h.id, (SELECT l.id FROM ladder l WHERE l.horse_id = h.id LIMIT 1) AS ladder,
       (SELECT s.id FROM session s WHERE s.horse_id = h.id ORDER BY s.created_ms DESC LIMIT 1) AS session,
       (SELECT s.created_ms || '_' || s.no FROM session s WHERE s.horse_id = h.id ORDER BY s.created_ms DESC LIMIT 1 OFFSET 60) AS after
     FROM horse h ORDER BY h.id LIMIT ${ASKED / 2}`,
  );
  database.close();
  const of = (path) => horses.map((horse) => path(horse));
  return {
    yard: ["/"],
    find: ["/api/find"],
    know: of(({ id }) => `/horses/${id}/know`),
    shape: of(({ id }) => `/horses/${id}/shape`),
    ladder: of(({ id, ladder }) => `/horses/${id}/shape/${ladder}`),
    editor: of(({ id, ladder }) => `/horses/${id}/shape/${ladder}/edit`),
    versions: of(({ id, ladder }) => `/horses/${id}/shape/${ladder}/versions`),
    work: of(({ id }) => `/horses/${id}/work`),
    circle: of(({ id }) => `/horses/${id}/work/circle`),
    load: of(({ id }) => `/horses/${id}/review/load`),
    recorder: of(({ id, session }) => `/horses/${id}/work/${session}`),
    "review list": of(({ id, after }) => `/horses/${id}/review${after === null ? "" : `?after=${after}`}`),
    review: of(({ id, session }) => `/horses/${id}/review/${session}`),
    "over weeks": of(({ id, ladder }) => `/horses/${id}/review/weeks?ladder=${ladder}`),
    sides: of(({ id }) => `/horses/${id}/review/sides`),
    compare: of(({ id }) => `/horses/${id}/review/compare?by=side`),
    trials: of(({ id }) => `/horses/${id}/review/trials?of=side%3DL`),
    changes: of(({ id }) => `/horses/${id}/review/changes`),
    moments: of(({ id }) => `/horses/${id}/review/moments`),
    "try both": of(({ id }) => `/horses/${id}/review/try-both`),
    month: of(({ id }) => `/horses/${id}/review/month`),
    ahead: of(({ id }) => `/horses/${id}/ahead`),
  };
}

/** Makes the yards, walks through every page of each, and says the figures. */
export async function benchHouse({ say, figure, against, quantile, sizes }) {
  for (const trials of sizes) {
    const folder = mkdtempSync(join(tmpdir(), "deft-house-"));
    const file = join(folder, "own.sqlite");
    const size = `${trials.toLocaleString("en").replaceAll(",", " ")} trials`;
    try {
      say(`Making a yard of ${size}.`);
      const made = run(["large-yard", file, "--trials", String(trials)], ["--max-semi-space-size=64"]);
      const rebuiltTimes = trials < WARM_TRIALS ? REBUILT_TIMES_COLD : REBUILT_TIMES;
      against(`caches made anew, ${size}`, 1e6 / made.trials_per_s, "µs a trial", (1e6 * made.bare_s) / made.trials, rebuiltTimes, {
        perSecond: Math.round(made.trials_per_s),
      });
      figure(`store, ${size}`, statSync(file).size / made.trials, "bytes a trial", BYTES_PER_TRIAL);
      const addresses = await addressesOf(file);
      const reads = run(["page-reads", file, JSON.stringify(addresses)]);
      const port = await freePort();
      const server = spawn(process.execPath, ["scripts/start.mjs", "--port", String(port)], {
        env: { ...process.env, DEFT_DATA: folder },
        stdio: ["ignore", "pipe", "inherit"],
      });
      let pid = null;
      try {
        await new Promise((resolve, reject) => {
          server.stdout.on("data", (piece) => String(piece).includes("is running on") && resolve());
          server.once("exit", () => reject(new Error("The server did not start.")));
        });
        const ask = async (path) => {
          const started = performance.now();
          const response = await fetch(`http://127.0.0.1:${port}${path}`);
          const text = await response.text();
          if (!response.ok) throw new Error(`${path}: ${response.status}`);
          return { ms: performance.now() - started, bytes: text.length };
        };
        for (const paths of Object.values(addresses)) for (const path of paths.slice(0, 2)) await ask(path);
        const empty = [];
        for (let i = 0; i < ASKED; i++) empty.push((await ask("/moved")).ms);
        const bare = quantile(empty, 0.95);
        const over = [];
        for (const [page, paths] of Object.entries(addresses)) {
          const times = [];
          let bytes = 0;
          for (let i = 0; i < ASKED; i++) {
            const one = await ask(paths[i % paths.length]);
            times.push(one.ms);
            bytes = Math.max(bytes, one.bytes);
          }
          const read = reads[page]?.readMs;
          const p95 = quantile(times, 0.95);
          const most = Math.min(EMPTY_TIMES * bare, read === undefined ? Number.POSITIVE_INFINITY : bare + READ_TIMES * read);
          figure(`page ${page}, ${size}`, p95, "ms", most, {
            median: Math.round(quantile(times, 0.5) * 10) / 10,
            ...(read === undefined ? {} : { yardstick: Math.round(read * 10) / 10 }),
          });
          figure(`page ${page}, ${size}, its text`, bytes / 1024, "kB", PAGE_KB);
          if (p95 > most) over.push(page);
        }
        say(`an empty page: ${Math.round(bare * 10) / 10} ms`);
        pid = pidOn(port);
        if (pid !== null) {
          const peak = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
          figure(`memory of the server after all pages, ${size}`, peak, "MB", SERVER_MB);
        }
      } finally {
        server.kill("SIGTERM");
        await new Promise((resolve) => server.once("exit", resolve));
      }
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
}

/** The process that serves a port: the launcher starts it as its child. */
function pidOn(port) {
  const found = spawnSync("sh", [
    "-c",
    `for p in /proc/[0-9]*; do tr '\\0' ' ' < $p/cmdline 2>/dev/null | grep -q -- "--port ${port}" && echo "$(sed -n 's/VmRSS:[^0-9]*\\([0-9]*\\).*/\\1/p' $p/status) $(basename $p)"; done | sort -n | tail -1`,
  ]);
  const [, pid] = found.stdout.toString().trim().split(" ");
  return pid === undefined ? null : Number(pid);
}
