import { isDay, isTimeZone } from "../day";
import { readRestriction } from "../schemas/read-restriction";
import { DEFAULT_SETTINGS } from "../settings";
import { type Restriction, UNREAD } from "../welfare";
import { emptyPack } from "./empty";
import type { HorsePack, Named, PackedYard } from "./types";

type Raw = Readonly<Record<string, unknown>>;
const rawOf = (value: unknown): Raw => (typeof value === "object" && value !== null ? (value as Raw) : {});
const listOf = (value: unknown): Raw[] => (Array.isArray(value) ? value.map(rawOf) : []);
const namedIn = (value: unknown): Named[] =>
  listOf(value).flatMap(({ id, name }) => (typeof id === "string" && typeof name === "string" ? [{ id, name }] : []));

/** Holds with no end and closes all work: what restricts the horse is not known. */
const NOT_KNOWN: Restriction = {
  kind: UNREAD,
  amount: null,
  detail: null,
  reason: "what restricts this horse is not known on this device",
  givenBy: "",
  from: null,
  until: null,
};

/** Restrictions as far as they can be read; each that cannot closes all work. */
function restrictionsIn(value: unknown): Restriction[] {
  if (!Array.isArray(value)) return [NOT_KNOWN];
  return listOf(value).map((one): Restriction => {
    if (one.kind === UNREAD) return { ...NOT_KNOWN, reason: typeof one.reason === "string" ? one.reason : NOT_KNOWN.reason };
    return readRestriction({
      kind: one.kind,
      amount: one.amount,
      detail: one.detail,
      limb: one.limb,
      carries_others: one.carriesOthers === true ? "yes" : one.carriesOthers === false ? "no" : null,
      reason: one.reason,
      given_by: one.givenBy,
      from_day: one.from,
      until_day: one.until,
      gone_against: JSON.stringify(one.goneAgainst ?? []),
    });
  });
}

/**
 * What can be had of a horse whose pack this program cannot read: its name,
 * what restricts it, and that it can be recorded. No ladders, so no advice.
 * @param horse as the yard names it.
 * @param why it could not be read.
 * @example bareHorse(kept.pack, { id: "h", name: "Tarn" }, "It is of version 9.").ladders // []
 */
export function bareHorse(kept: unknown, horse: Named, why: string): HorsePack {
  const raw = rawOf(kept);
  const own = rawOf(raw.horse);
  const year = own.birthYear;
  return {
    ...emptyPack({
      id: horse.id,
      name: horse.name,
      apart: "",
      sample: false,
      away: typeof own.away === "string" ? own.away : null,
      // Its age may close work: what of it can be read is kept.
      bornDay: isDay(own.bornDay) ? own.bornDay : null,
      birthYear: typeof year === "number" && Number.isInteger(year) ? year : null,
      restingBreaths: null,
      bearsHeatBadly: true,
    }),
    restrictions: restrictionsIn(raw.restrictions),
    unread: why,
  };
}

/**
 * What can be had of a yard whose facts this program cannot read: names of its
 * people and horses; every setting as it comes.
 * @param others horses the device keeps, by name, where the yard's own list cannot be read.
 * @example bareYard(kept.yard, "Europe/Oslo", []).facts.settings // the defaults
 */
export function bareYard(kept: unknown, timeZone: string, others: readonly Named[]): PackedYard {
  const raw = rawOf(kept);
  const facts = rawOf(raw.facts);
  const me = rawOf(raw.me);
  const horses = listOf(raw.horses).flatMap((one) =>
    typeof one.id === "string" && typeof one.name === "string"
      ? [{ id: one.id, name: one.name, away: typeof one.away === "string" ? one.away : null, sample: one.sample === true, apart: "" }]
      : [],
  );
  return {
    version: 0,
    store: String(raw.store),
    epoch: String(raw.epoch),
    position: typeof raw.position === "number" ? raw.position : 0,
    nowMs: typeof raw.nowMs === "number" ? raw.nowMs : 0,
    facts: {
      timeZone: isTimeZone(facts.timeZone) ? facts.timeZone : timeZone,
      settings: DEFAULT_SETTINGS,
      people: namedIn(facts.people),
      ownSigns: [],
      places: namedIn(facts.places).map((place) => ({ ...place, zones: [], acrossMetres: null })),
      kit: [],
    },
    me: {
      network: me.network === true,
      name: typeof me.name === "string" ? me.name : null,
      access: me.access === "owner" ? "owner" : "helper",
      recorder: typeof me.recorder === "string" ? me.recorder : null,
      olderHosts: Array.isArray(me.olderHosts) ? me.olderHosts.filter((one): one is string => typeof one === "string") : [],
    },
    horses: horses.length > 0 ? horses : others.map((one) => ({ ...one, away: null, sample: false, apart: "" })),
  };
}
