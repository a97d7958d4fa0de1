import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { newStore } from "@/tests/support/new-store";
import { bringBack, putInBin } from "./bin";
import { addPerson } from "./people";
import {
  accessOfPeople,
  deviceOf,
  endAllSignIns,
  endSignIn,
  hashPassphrase,
  hasOwner,
  isPassphrase,
  listSignIns,
  newSecret,
  SignIns,
  setAccess,
  signIn,
} from "./sign-ins";
import { closeStore, type Store } from "./store";

let folder: string;
let store: Store;
let now = Date.UTC(2026, 5, 1, 12);
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "sign-ins-"));
  now = Date.UTC(2026, 5, 1, 12);
  store = await newStore(join(folder, "own.sqlite"), () => now);
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

const PASS = "four words do well";
const device = newSecret();
async function person(name: string, access: "owner" | "helper"): Promise<string> {
  const id = await addPerson(store, { name, role: "handler" });
  await setAccess(store, id, access, PASS);
  return id;
}
const enter = (name: string, passphrase = PASS, deviceSecret = device) =>
  signIn(store, { name, passphrase, deviceSecret, deviceName: "Chrome on Android", host: "deft-1.local:4380" });

describe("the owner of a horse", () => {
  it("is somebody's part in the yard and grants nothing: access is given apart from it", async () => {
    const owner = await addPerson(store, { name: "Wick", role: "owner" });
    expect((await accessOfPeople(store)).get(owner)).toBeUndefined();
    await expect(enter("Wick")).resolves.toBeNull();
    await setAccess(store, owner, "helper", PASS);
    expect(await enter("Wick")).toMatchObject({ who: { access: "helper" } });
  });
});

describe("somebody out of the bin", () => {
  it("signs in anew: what was open before is ended", async () => {
    const hilda = await person("Hilda", "helper");
    const { token } = (await enter("Hilda")) ?? { token: "" };
    const signIns = new SignIns(store);
    expect(await signIns.whoHas(token, device)).toMatchObject({ name: "Hilda" });
    await putInBin(store, "person", hilda);
    expect(await signIns.whoHas(token, device)).toBeNull();
    await bringBack(store, "person", hilda);
    expect(await signIns.whoHas(token, device)).toBeNull();
    expect(await enter("Hilda")).toMatchObject({ who: { name: "Hilda" } });
  });
});

describe("a passphrase", () => {
  it("is kept as a slow hash with a salt of its own, and read by what stands with it", async () => {
    const [a, b] = [await hashPassphrase(PASS), await hashPassphrase(PASS)];
    expect(a).not.toBe(b);
    expect(a).toMatch(/^scrypt\$65536\$8\$2\$/);
    expect(a).not.toContain(PASS);
    expect(await isPassphrase(PASS, a)).toBe(true);
    expect(await isPassphrase(`${PASS} `, a)).toBe(false);
    expect(await isPassphrase(PASS, null)).toBe(false);
    expect(await isPassphrase("", "plain text")).toBe(false);
  });

  it("fits however an accent was typed", async () => {
    const kept = await hashPassphrase("caf\u00e9 in the rain");
    expect(await isPassphrase("cafe\u0301 in the rain", kept)).toBe(true);
  });

  // RFC 7914, section 12, third vector: what is kept elsewhere under the same parameters is read here.
  it("is the scrypt of the standard", async () => {
    const key = Buffer.from(
      "7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2d5432955613f0fcf62d49705242a9af9e61e85dc0d651e40dfcf017b45575887",
      "hex",
    ).subarray(0, 32);
    const kept = ["scrypt", 16384, 8, 1, Buffer.from("SodiumChloride").toString("base64"), key.toString("base64")].join("$");
    expect(await isPassphrase("pleaseletmein", kept)).toBe(true);
  });
});

describe("signing in", () => {
  it("takes name and passphrase, and gives a secret that is new each time and kept nowhere", async () => {
    await person("Ilse", "helper");
    const [first, second] = [await enter("ilse "), await enter("Ilse")];
    expect(first?.token).not.toBe(second?.token);
    expect(first?.who).toMatchObject({ name: "Ilse", access: "helper", device: deviceOf(device), recorder: `${deviceOf(device)}:Ilse` });
    const rows = await store.sequelize.query("SELECT * FROM sign_in", { type: QueryTypes.SELECT });
    expect(JSON.stringify(rows)).not.toContain(first?.token);
    expect(await enter("Ilse", "wrong words here")).toBeNull();
    expect(await enter("Nobody")).toBeNull();
  });

  it("is remembered, worth nothing on another device, and ended at once", async () => {
    await person("Ilse", "helper");
    const signIns = new SignIns(store);
    const { token = "", who } = (await enter("Ilse")) ?? {};
    expect(await signIns.whoHas(token, device)).toMatchObject({ name: "Ilse" });
    expect(await signIns.whoHas(token, newSecret())).toBeNull();
    expect(await signIns.whoHas(newSecret(), device)).toBeNull();
    expect(await endSignIn(store, who?.id ?? "")).toBe(true);
    expect(await endSignIn(store, who?.id ?? "")).toBe(false);
    expect(await signIns.whoHas(token, device)).toBeNull();
    expect(await listSignIns(store)).toEqual([]);
  });

  it.each([
    ["access taken", (id: string) => setAccess(store, id, null, null)],
    ["another passphrase", (id: string) => setAccess(store, id, "owner", "quite other words")],
    ["put in the bin", (id: string) => putInBin(store, "person", id)],
    ["all ended", () => endAllSignIns(store)],
  ])("ends with %s", async (_, change) => {
    const id = await person("Ilse", "owner");
    const signIns = new SignIns(store);
    const { token = "" } = (await enter("Ilse")) ?? {};
    expect(await signIns.whoHas(token, device)).not.toBeNull();
    await change(id);
    expect(await signIns.whoHas(token, device)).toBeNull();
  });

  it("ends after ninety days unused, and not while it is used", async () => {
    await person("Ilse", "helper");
    const { token = "" } = (await enter("Ilse")) ?? {};
    for (let week = 0; week < 20; week++) {
      now += 7 * 86_400_000;
      expect(await new SignIns(store).whoHas(token, device)).not.toBeNull();
      await store.writer.idle();
    }
    now += 91 * 86_400_000;
    expect(await new SignIns(store).whoHas(token, device)).toBeNull();
  });

  it("knows every name a device ever logged under, and only that device's", async () => {
    await person("Ilse", "helper");
    await person("Wenna", "owner");
    const signIns = new SignIns(store);
    await enter("Ilse");
    await enter("Wenna");
    await enter("Wenna", PASS, newSecret());
    const own = deviceOf(device);
    expect([...(await signIns.recordersOf(own))].sort()).toEqual([`${own}:Ilse`, `${own}:Wenna`]);
    await endAllSignIns(store);
    // What was tapped before it ended may still wait on the device.
    expect((await signIns.recordersOf(own)).size).toBe(2);
  });

  it("tells whether anybody is owner, and who may what", async () => {
    expect(await hasOwner(store)).toBe(false);
    const helper = await person("Ilse", "helper");
    expect(await hasOwner(store)).toBe(false);
    const owner = await person("Wenna", "owner");
    expect(await hasOwner(store)).toBe(true);
    expect(Object.fromEntries(await accessOfPeople(store))).toEqual({ [helper]: "helper", [owner]: "owner" });
    await expect(setAccess(store, "none", "owner", PASS)).rejects.toThrow(/no such person/);
  });
});
