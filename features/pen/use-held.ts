"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { type HorsePack, withOwnSessions } from "@/core/pack";
import { senderFor } from "../device/sender";
import { keepLastHorse } from "./keep";
import { type KeptYard, keptHorse, keptYard } from "./opened";
import { ownSessions } from "./own";
import { fetchHorse, fetchYard, refreshHorses } from "./refresh";

/** The yard as this device has it. */
export interface HeldYard {
  /** False until the device's own copy was looked for. */
  readonly looked: boolean;
  readonly kept: KeptYard | null;
  /** Why the server's could not be had, or null. */
  readonly problem: string | null;
}

/** The device's copy of the yard at once, then the server's where it answers. */
export function useHeldYard(inHand: string | null): HeldYard {
  const [held, setHeld] = useState<HeldYard>({ looked: false, kept: null, problem: null });
  const horse = useRef(inHand);
  horse.current = inHand;
  useEffect(() => {
    let gone = false;
    const read = async (problem: string | null) => {
      const kept = await keptYard().catch(() => null);
      if (!gone) setHeld({ looked: true, kept, problem });
    };
    const renew = async () => {
      try {
        const yard = await fetchYard();
        await read(null);
        await refreshHorses(yard, horse.current);
      } catch (error) {
        await read(error instanceof Error ? error.message : "The server does not answer.");
      }
    };
    void read(null).then(renew);
    const online = () => void renew();
    window.addEventListener("online", online);
    return () => {
      gone = true;
      window.removeEventListener("online", online);
    };
  }, []);
  return held;
}

/** A horse as this device has it, with its own sessions laid over. */
export interface HeldHorse {
  readonly looked: boolean;
  readonly pack: HorsePack | null;
  /** Server wall clock when this was worked out. */
  readonly nowMs: number;
  /** Counts what was laid before the page: a form that was touched keeps what it has. */
  readonly revision: number;
  readonly refresh: () => void;
}

/** A kept horse is not asked for again within this time. */
const FRESH_MS = 5000;

/** The device's copy of a horse at once, then the server's where it answers; worked out anew at each place of the pen. */
export function useHeldHorse(yard: KeptYard, horse: string, place: string): HeldHorse {
  const { store, offsetMs } = yard;
  const newest = useRef(yard);
  newest.current = yard;
  const { silenceMinutes } = yard.yard.facts.settings;
  const [held, setHeld] = useState<Omit<HeldHorse, "refresh">>({ looked: false, pack: null, nowMs: 0, revision: 0 });
  const read = useCallback(async () => {
    const kept = await keptHorse(newest.current, horse).catch(() => null);
    const nowMs = Date.now() + offsetMs;
    let pack: HorsePack | null = null;
    if (kept !== null) {
      const own = await ownSessions(senderFor(store), { fetchedMs: kept.fetchedMs, offsetMs, silenceMinutes }).catch(() => []);
      pack = withOwnSessions(kept.pack, own, nowMs);
    }
    setHeld(({ revision }) => ({ looked: true, pack, nowMs, revision: revision + 1 }));
    return kept;
  }, [store, horse, offsetMs, silenceMinutes]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was tapped at the last place counts at the next
  useEffect(() => {
    keepLastHorse(horse);
    void read().then(async (kept) => {
      if (kept !== null && Date.now() - kept.fetchedMs < FRESH_MS) return;
      try {
        await fetchHorse(store, horse);
        await read();
      } catch {
        // What the device has stands; the page says how old it is.
      }
    });
  }, [store, horse, read, place]);
  const refresh = useCallback(() => void read(), [read]);
  return { ...held, refresh };
}
