import { copyFileSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { populateDemo } from "@/demo/populate";
import { closeStore, openStore, type Store } from "@/store";

export { populateDemo };

const templates = new Map<string, Promise<string>>();

async function template(nowMs: number, seed: number): Promise<string> {
  const file = join(mkdtempSync(join(tmpdir(), "deft-demo-")), "demo.sqlite");
  const store = await openStore(file, () => nowMs);
  await populateDemo(store, nowMs, seed);
  await closeStore(store);
  return file;
}

/** A store of its own with the invented yard in it: made once for each seed, copied after that. */
export async function populatedStore(file: string, nowMs: number, seed: number): Promise<Store> {
  const key = `${nowMs}:${seed}`;
  const made = templates.get(key) ?? template(nowMs, seed);
  templates.set(key, made);
  copyFileSync(await made, file);
  return openStore(file, () => nowMs);
}
