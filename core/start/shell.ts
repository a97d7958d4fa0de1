import { SESSION_KIND_FACTS } from "../events/session-kind";
import type { PinnedSign } from "../ladder";
import type { BegunSession, HorsePack, Named, YardFacts, Zone } from "../pack";
import type { SessionEvent } from "../schemas";
import type { YardSettings } from "../settings";
import type { Today } from "../today";
import type { Allowance } from "../welfare";

/** What the session itself brings: its taps so far and how far the store had them. */
export interface SessionSoFar {
  readonly storeId: string;
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  readonly position: number;
}

/** Which session a recorder is open on, and what stands round it. */
export interface StartSession extends SessionSoFar {
  readonly id: string;
  readonly horse: Named;
  readonly handler: string;
  readonly place: string;
  /** Zones of the place, each one tap away. */
  readonly zones: readonly Zone[];
  /** Whether the plan is the first look's battery: items instead of rungs, and no word. */
  readonly battery: boolean;
  /** The session as it was begun: a device that keeps it can give it to a store that has lost it. */
  readonly begun: BegunSession;
}

/** What of the yard a recorder needs. */
export interface StartYard {
  readonly settings: YardSettings;
  /** Who may take over. */
  readonly people: readonly Named[];
  /** Signs the yard has added to the product's own. */
  readonly ownSigns: readonly PinnedSign[];
}

/** What holds today for every recorder; told anew while it is open. */
export interface ShellToday {
  /** What restrictions and age allow. */
  readonly allowance: Allowance;
  /** Said before work begins: restrictions, age. */
  readonly cautions: readonly string[];
  /** By how much the bounds of heat lie lower for this horse, in °C. */
  readonly heatLowerCelsius: number;
  /** The horse's own rate at rest, breaths a minute; null where it is not known. */
  readonly restingBreaths: number | null;
}

/** What every recorder begins with, also those that watch and plan nothing. */
export interface ShellStart {
  readonly session: StartSession;
  readonly yard: StartYard;
  readonly today: ShellToday;
}

/**
 * The part of a start that needs no ladder.
 * @example shellStart(pack, yard, todayOf(pack, yard, nowMs), begun, { storeId, events: [], clocks: {}, position: 0 }).session.horse.name
 */
export function shellStart(pack: HorsePack, yard: YardFacts, today: Today, begun: BegunSession, soFar: SessionSoFar): ShellStart {
  const place = yard.places.find(({ id }) => id === begun.place);
  return {
    session: {
      ...soFar,
      id: begun.id,
      horse: { id: pack.horse.id, name: pack.horse.name },
      handler: yard.people.find(({ id }) => id === begun.person)?.name ?? begun.person_name ?? "",
      place: place?.name ?? begun.place_name ?? "",
      zones: place?.zones ?? [],
      battery: SESSION_KIND_FACTS[begun.kind].plan === "battery",
      begun,
    },
    yard: { settings: yard.settings, people: yard.people, ownSigns: yard.ownSigns },
    today: {
      allowance: today.allowance,
      cautions: today.cautions,
      heatLowerCelsius: today.heatLowerCelsius,
      restingBreaths: pack.horse.restingBreaths,
    },
  };
}
