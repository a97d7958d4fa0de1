import { createHash, randomUUID as newId, randomBytes, type ScryptOptions, scrypt, timingSafeEqual } from "node:crypto";
import { QueryTypes } from "sequelize";
import { NotFoundError } from "./rows";
import type { Store } from "./store";

/** What somebody on the network may do: everything, or log and read. */
export type Access = "owner" | "helper";

/** Somebody who is signed in, from one device. */
export interface SignedIn {
  readonly id: string;
  readonly personId: string;
  readonly name: string;
  readonly access: Access;
  /** This device's own short name, made from a secret only it has. */
  readonly device: string;
  /** Under which its taps are logged: device and person. */
  readonly recorder: string;
}

/** A sign-in as it is listed. */
export interface ListedSignIn {
  readonly id: string;
  readonly name: string;
  readonly access: Access | null;
  readonly device: string;
  readonly deviceName: string;
  readonly host: string;
  readonly createdMs: number;
  readonly usedMs: number;
}

/** Cost of a guess: 64 MB and some tenths of a second (RFC 7914; the sizes are those of the OWASP password storage sheet, from memory). */
const COST: ScryptOptions & { N: number; r: number; p: number } = { N: 2 ** 16, r: 8, p: 2, maxmem: 160 * 1024 * 1024 };
const HASH_BYTES = 32;
/** A device that was not seen for so long signs in anew. */
const UNUSED_MS = 90 * 86_400_000;
/** When a sign-in was used last is written down no more often than this. */
const USED_EVERY_MS = 5 * 60_000;

const derive = (passphrase: string, salt: Buffer, cost: typeof COST) =>
  new Promise<Buffer>((resolve, reject) => {
    scrypt(passphrase.normalize("NFKC"), salt, HASH_BYTES, { ...cost, maxmem: COST.maxmem }, (error, key) =>
      error === null ? resolve(key) : reject(error),
    );
  });

/** A passphrase as it is kept: the way it was hashed stands with it. */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(passphrase, salt, COST);
  return ["scrypt", COST.N, COST.r, COST.p, salt.toString("base64"), key.toString("base64")].join("$");
}

/** Whether a passphrase is the kept one; takes as long where there is none. */
export async function isPassphrase(passphrase: string, kept: string | null): Promise<boolean> {
  const [kind, N, r, p, salt, key] = (kept ?? "").split("$");
  if (kind !== "scrypt" || salt === undefined || key === undefined) {
    await derive(passphrase, randomBytes(16), COST);
    return false;
  }
  const wanted = Buffer.from(key, "base64");
  const found = await derive(passphrase, Buffer.from(salt, "base64"), { ...COST, N: Number(N), r: Number(r), p: Number(p) });
  return wanted.length === found.length && timingSafeEqual(wanted, found);
}

const hashOf = (secret: string) => createHash("sha256").update(secret).digest("hex");

/** A device's short name from its secret: nobody without the secret can have it. */
export const deviceOf = (secret: string): string => hashOf(`device ${secret}`).slice(0, 8);

/** A secret for a cookie. */
export const newSecret = (): string => randomBytes(32).toString("base64url");

interface FoundPerson {
  readonly id: string;
  readonly name: string;
  readonly access: Access | null;
  readonly passphrase: string | null;
}

async function peopleOfName({ sequelize }: Store, name: string): Promise<FoundPerson[]> {
  const all = await sequelize.query<FoundPerson>(
    "SELECT id, name, access, passphrase FROM person WHERE binned_ms IS NULL AND access IS NOT NULL",
    { type: QueryTypes.SELECT },
  );
  const wanted = name.trim().toLowerCase();
  return all.filter((person) => person.name.toLowerCase() === wanted);
}

/** Whether anybody may sign in as owner. */
export async function hasOwner({ sequelize }: Store): Promise<boolean> {
  const rows = await sequelize.query(
    "SELECT 1 FROM person WHERE access = 'owner' AND passphrase IS NOT NULL AND binned_ms IS NULL LIMIT 1",
    {
      type: QueryTypes.SELECT,
    },
  );
  return rows.length > 0;
}

/** What each person may do on the network; those who may not sign in are left out. */
export async function accessOfPeople({ sequelize }: Store): Promise<ReadonlyMap<string, Access>> {
  const rows = await sequelize.query<{ id: string; access: Access }>(
    "SELECT id, access FROM person WHERE access IS NOT NULL AND binned_ms IS NULL",
    { type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, access }) => [id, access]));
}

/**
 * Says what a person may do on the network, null for nothing. A change ends
 * every sign-in of that person.
 * @throws NotFoundError where there is no such person.
 */
export async function setAccess(store: Store, personId: string, access: Access | null, passphrase: string | null): Promise<void> {
  const hash = passphrase === null ? null : await hashPassphrase(passphrase);
  await store.writer.write(async (transaction) => {
    const [, changed] = await store.sequelize.query(
      `UPDATE person SET access = $access, passphrase = CASE WHEN $access IS NULL THEN NULL ELSE COALESCE($hash, passphrase) END
       WHERE id = $id AND binned_ms IS NULL`,
      { bind: { access, hash, id: personId }, type: QueryTypes.UPDATE, transaction },
    );
    if (changed === 0) throw new NotFoundError("There is no such person.");
    await store.sequelize.query("UPDATE sign_in SET ended_ms = $now WHERE person_id = $id AND ended_ms IS NULL", {
      bind: { now: store.now(), id: personId },
      type: QueryTypes.UPDATE,
      transaction,
    });
  });
}

/** Signs somebody in from a device. @returns the secret for its cookie, or null where name and passphrase do not fit. */
export async function signIn(
  store: Store,
  asked: {
    readonly name: string;
    readonly passphrase: string;
    readonly deviceSecret: string;
    readonly deviceName: string;
    readonly host: string;
  },
): Promise<{ readonly token: string; readonly who: SignedIn } | null> {
  const people = await peopleOfName(store, asked.name);
  let person: FoundPerson | null = null;
  for (const one of people) if (await isPassphrase(asked.passphrase, one.passphrase)) person ??= one;
  if (people.length === 0) await isPassphrase(asked.passphrase, null);
  if (person === null || person.access === null) return null;
  const token = newSecret();
  const device = deviceOf(asked.deviceSecret);
  const id = newId();
  const recorder = `${device}:${person.name}`.slice(0, 100);
  const now = store.now();
  await store.writer.write((transaction) =>
    store.sequelize.query(
      `INSERT INTO sign_in (id, token_hash, person_id, device, device_name, recorder, host, created_ms, used_ms)
       VALUES ($id, $token, $person, $device, $deviceName, $recorder, $host, $now, $now)`,
      {
        bind: {
          id,
          token: hashOf(token),
          person: (person as FoundPerson).id,
          device,
          deviceName: asked.deviceName.slice(0, 80),
          recorder,
          host: asked.host.slice(0, 100),
          now,
        },
        type: QueryTypes.INSERT,
        transaction,
      },
    ),
  );
  return { token, who: { id, personId: person.id, name: person.name, access: person.access, device, recorder } };
}

/** Ends a sign-in. @returns whether there was one. */
export async function endSignIn(store: Store, id: string): Promise<boolean> {
  const [, changed] = await store.writer.write((transaction) =>
    store.sequelize.query("UPDATE sign_in SET ended_ms = $now WHERE id = $id AND ended_ms IS NULL", {
      bind: { now: store.now(), id },
      type: QueryTypes.UPDATE,
      transaction,
    }),
  );
  return changed > 0;
}

/** Ends every sign-in. */
export async function endAllSignIns(store: Store): Promise<void> {
  await store.writer.write((transaction) =>
    store.sequelize.query("UPDATE sign_in SET ended_ms = $now WHERE ended_ms IS NULL", {
      bind: { now: store.now() },
      type: QueryTypes.UPDATE,
      transaction,
    }),
  );
}

/** Every sign-in that holds, the one used last first. */
export async function listSignIns(store: Store): Promise<ListedSignIn[]> {
  return store.sequelize.query<ListedSignIn>(
    `SELECT i.id, p.name, p.access, i.device, i.device_name AS deviceName, i.host, i.created_ms AS createdMs, i.used_ms AS usedMs
     FROM sign_in i JOIN person p ON p.id = i.person_id WHERE i.ended_ms IS NULL AND i.used_ms > $since ORDER BY i.used_ms DESC`,
    { bind: { since: store.now() - UNUSED_MS }, type: QueryTypes.SELECT },
  );
}

interface Remembered {
  readonly who: SignedIn | null;
  usedMs: number;
}

/** Everybody who is signed in, as each request asks: what is known is remembered until facts of the yard change. */
export class SignIns {
  private readonly remembered = new Map<string, Remembered>();
  private readonly recorders = new Map<string, ReadonlySet<string>>();

  constructor(private readonly store: Store) {
    store.writer.onFacts(() => {
      this.remembered.clear();
      this.recorders.clear();
    });
  }

  /** Who holds this secret, from this device; null for nobody. */
  async whoHas(token: string, deviceSecret: string): Promise<SignedIn | null> {
    const hash = hashOf(token);
    let known = this.remembered.get(hash);
    if (known === undefined) {
      const [row] = await this.store.sequelize.query<SignedIn & { usedMs: number }>(
        `SELECT i.id, i.person_id AS personId, p.name, p.access, i.device, i.recorder, i.used_ms AS usedMs FROM sign_in i
         JOIN person p ON p.id = i.person_id AND p.binned_ms IS NULL AND p.access IS NOT NULL
         WHERE i.token_hash = $hash AND i.ended_ms IS NULL AND i.used_ms > $since`,
        { bind: { hash, since: this.store.now() - UNUSED_MS }, type: QueryTypes.SELECT },
      );
      const { usedMs = 0, ...who } = row ?? {};
      known = { who: row === undefined ? null : (who as SignedIn), usedMs };
      if (this.remembered.size > 1000) this.remembered.clear();
      this.remembered.set(hash, known);
    }
    const { who } = known;
    // A secret that was carried to another device is worth nothing there.
    if (who === null || who.device !== deviceOf(deviceSecret)) return null;
    const now = this.store.now();
    if (now - known.usedMs > USED_EVERY_MS) {
      known.usedMs = now;
      // Not waited for, and no matter where the disk is full.
      void this.store.writer
        .write(
          (transaction) =>
            this.store.sequelize.query("UPDATE sign_in SET used_ms = $now WHERE id = $id", {
              bind: { now, id: who.id },
              type: QueryTypes.UPDATE,
              transaction,
            }),
          "sums",
        )
        .catch(() => undefined);
    }
    return who;
  }

  /** Every recorder that was ever signed in from a device: taps of an earlier person on it may still wait to be sent. */
  async recordersOf(device: string): Promise<ReadonlySet<string>> {
    const known = this.recorders.get(device);
    if (known !== undefined) return known;
    const rows = await this.store.sequelize.query<{ recorder: string }>("SELECT DISTINCT recorder FROM sign_in WHERE device = $device", {
      bind: { device },
      type: QueryTypes.SELECT,
    });
    const found = new Set(rows.map(({ recorder }) => recorder));
    this.recorders.set(device, found);
    return found;
  }

  /** Under which names a person ever signed in, on any device. */
  async recordersOfPerson(personId: string): Promise<ReadonlySet<string>> {
    const key = `person ${personId}`;
    const known = this.recorders.get(key);
    if (known !== undefined) return known;
    const rows = await this.store.sequelize.query<{ recorder: string }>("SELECT DISTINCT recorder FROM sign_in WHERE person_id = $person", {
      bind: { person: personId },
      type: QueryTypes.SELECT,
    });
    const found = new Set(rows.map(({ recorder }) => recorder));
    this.recorders.set(key, found);
    return found;
  }
}
