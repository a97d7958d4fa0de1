import type { TouchTool, TouchZone } from "@/core/know";
import { openDanger, piecesUsed, type SignalClass, whereNow } from "@/core/record";
import { namesFor } from "@/core/signs";
import { HEART_STRAND } from "@/core/welfare";
import { touchFacts } from "../../touch/touch-facts";
import { asideFacts } from "../block-facts";
import type { Side } from "../types";
import { canLog, type Pen, press, refuse } from "./pen";

/** What happens around the asks: signs, places, gaits, breaths, looks. */
export function sceneActs(pen: Pen) {
  const { now } = pen;
  return {
    /** One tap logs the sign; its name is a second tap, if wanted. Danger brings the stop card, which is drawn from the log. */
    signal: (kind: SignalClass) => press(pen, { type: "signal", payload: { name: kind, class: kind } }),
    nameSignal: (id: string, name: string) => {
      const { record, start } = now();
      const fact = record.facts.find((one) => one.id === id);
      if (fact?.type !== "signal") return;
      const own = [...start.yard.ownSigns, ...start.today.pinned, ...(start.part.plan.conversation?.pinned ?? [])];
      if (namesFor(fact.payload.class).includes(name) || own.some((sign) => sign.class === fact.payload.class && sign.name === name))
        press(pen, { type: "correct", payload: { event: id, payload: { name }, reason: "named" } });
    },
    /** A danger pad hit by mistake: the sign is struck out, whoever tapped it. */
    strikeSignal: (id: string) => press(pen, { type: "correct", payload: { event: id, strike: true, reason: "tapped by mistake" } }),
    /** Answers the stop card: what happened and what comes now, who was hurt and why it goes on. */
    madeSafe: (
      what: string,
      then: string,
      {
        hurt = null,
        why = "",
        ends = false,
        release = false,
        vet = false,
      }: { hurt?: "fall" | "injury" | null; why?: string; ends?: boolean; release?: boolean; vet?: boolean } = {},
    ) => {
      if (openDanger(now().record) === null) return;
      const more = {
        ...(hurt === null ? {} : { hurt }),
        ...(why === "" ? {} : { why }),
        ...(ends ? { ends } : {}),
        ...(release ? { release } : {}),
        ...(vet ? { vet } : {}),
      };
      press(pen, { type: "safety", payload: { what, then, ...more } });
    },
    // Where the horse is: one tap, whether or not a block runs.
    zone: (zone: string) => press(pen, { type: "zone", payload: { zone } }),
    away: () => {
      const { zone, away } = whereNow(now().record);
      if (away) press(pen, { type: "return" });
      else press(pen, { type: "depart", payload: zone === null ? {} : { from: zone } });
    },
    gait: (gait: string, direction: string | null, radiusMetres: number | null) =>
      press(pen, {
        type: "gait",
        payload: { gait, ...(direction === null ? {} : { direction }), ...(radiusMetres === null ? {} : { radius_m: radiusMetres }) },
      }),
    breath: (tapsMs: readonly number[]) => {
      if (tapsMs.length < 2) return refuse(pen, "Two breaths at least.");
      press(pen, { type: "breath", payload: { taps_ms: tapsMs.map((ms) => Math.round(ms - (tapsMs[0] ?? 0))) } });
    },
    /** The pouch filled up again, to so many pieces. */
    fillPouch: (pieces: number) => press(pen, { type: "preflight", payload: { pouch: piecesUsed(now().record) + pieces } }),
    heart: (perMinute: number) => press(pen, { type: "measure", payload: { strand: HEART_STRAND, value: perMinute, unit: "a minute" } }),
    sample: (question: string, answer: string, beep: number, seconds: number) =>
      press(pen, { type: "sample", payload: { question, answer, observer: now().start.session.handler, beep, interval_s: seconds } }),
    // In a block of its own, unless the ladder is about touch: it must not count for the rung.
    touch: (zone: TouchZone, side: Side, tool: TouchTool, grade: number) => {
      if (canLog(pen)) press(pen, ...asideFacts(now().start, now().record), ...touchFacts(zone, side, tool, grade));
    },
  };
}
