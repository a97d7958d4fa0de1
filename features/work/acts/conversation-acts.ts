import { closedLinks } from "@/core/advice";
import type { Part } from "@/core/events/parts";
import { type OwnTimeKind, type PinnedSign, sideAsked } from "@/core/ladder";
import type { PackChain } from "@/core/pack";
import { whereNow } from "@/core/record";
import type { Fact, Payload } from "@/core/schemas";
import { blockFacts } from "../block-facts";
import { type Pen, press, refuse } from "./pen";

/** Held for less than this, a pad that times a span is a press: on with one, off with the next. */
const HOLD_MS = 450;

/** Wrong choices: counted or timed, and named afterwards. */
function wrongActs(pen: Pen) {
  const { now } = pen;
  let pressedAtMs: number | null = null;
  /** The wrong choice that this press began. */
  let begun = false;

  /** What the plan expects stands for a tap that says neither what it did nor what it met. */
  const expected = () => {
    const { did = "", met = "" } = now().start.part.plan.conversation?.whenWrong ?? {};
    return { ...(did === "" ? {} : { did }), ...(met === "" ? {} : { met }) };
  };

  const wrongOpen = () => now().record.timeLine.wrongs.at(-1)?.endMs === null;

  return {
    /**
     * A wrong choice. In Tally a tap counts it; held, or in Timed, it is timed:
     * let go to end it, or tap to begin and tap again to end.
     */
    wrong: (down: boolean) => {
      if (down) {
        begun = false;
        if (!now().working) return refuse(pen, "Start a block first.");
        if (now().onBreak) return refuse(pen, "On a break. End it first.");
        pressedAtMs = performance.now();
        if (wrongOpen()) return press(pen, { type: "wrong.end" });
        begun = true;
        return press(pen, { type: "wrong", payload: { ...expected(), goes_on: true } });
      }
      const heldMs = pressedAtMs === null ? 0 : performance.now() - pressedAtMs;
      pressedAtMs = null;
      if (!begun) return;
      begun = false;
      if (heldMs >= HOLD_MS) pen.log({ type: "wrong.end" });
      else if (now().way === "tally") {
        // A tap counts one that took no time worth timing.
        const last = now().record.timeLine.wrongs.at(-1);
        if (last !== undefined)
          pen.log({ type: "correct", payload: { event: last.eventId, payload: { goes_on: false, seconds: 0 }, reason: "one tap" } });
      }
    },
    /** What is said of the last wrong choice afterwards. */
    wrongWas: (event: string, change: Payload<"wrong">) =>
      press(pen, { type: "correct", payload: { event, payload: { ...change }, reason: "named" } }),
  };
}

/** Runs of a chain. */
function runActs(pen: Pen) {
  const { now } = pen;
  return {
    /** Begins a run of the whole; where no block runs yet, one on its first link begins with it. */
    runChain: (chain: PackChain, from: number) => {
      const { start, record, working, onBreak } = now();
      const partOf = (ladder: string) => start.parts.find(({ ladderId }) => ladderId === ladder);
      const [closed] = closedLinks(chain.links, partOf, start.today.allowance);
      if (closed !== undefined) return refuse(pen, `Not today. ${closed}`);
      if (onBreak) return refuse(pen, "On a break. End it first.");
      const link = chain.links[from - 1];
      const part = link === undefined ? undefined : partOf(link.ladder);
      const block: Fact[] =
        working || link === undefined || part === undefined
          ? []
          : blockFacts(start, record, { rung: link.rung, side: sideAsked(part.plan, link.rung) ?? "L", kind: "work", part });
      press(pen, ...block, {
        type: "run.start",
        payload: {
          chain: chain.id,
          name: chain.name,
          direction: chain.direction,
          links: chain.links.map(({ name }) => name),
          ...(from > 1 ? { from } : {}),
        },
      });
    },
    /** Danger in a run ends it on the link it was on, and brings the stop card. */
    dangerInRun: (link: number) =>
      press(
        pen,
        { type: "signal", payload: { name: "danger", class: "danger" } },
        { type: "run.end", payload: { link, reason: "danger", did: "stopped" } },
      ),
    reachLink: (link: number) => press(pen, { type: "link", payload: { link } }),
    endRun: (end: Payload<"run.end">) => press(pen, { type: "run.end", payload: { ...end } }),
  };
}

/** What happens between the asks: wrong choices, the horse's own time, what the handler does, who is there. */
export function conversationActs(pen: Pen) {
  const { now } = pen;
  return {
    ...wrongActs(pen),
    ...runActs(pen),
    /** The horse's own time: one press begins it, the next ends it by the horse. */
    ownTime: (what: OwnTimeKind, endedBy: "horse" | "handler" = "horse") => {
      const { record, working } = now();
      if (!working) return refuse(pen, "Start a block first.");
      const open = record.timeLine.ownTimes.some((span) => span.what === what && span.endMs === null);
      if (open) press(pen, { type: "own.end", payload: { what, ended_by: endedBy } });
      else if (now().onBreak) refuse(pen, "On a break. End it first.");
      else press(pen, { type: "own.start", payload: { what } });
    },
    /** What the handler did. */
    handlerAct: (act: string) => press(pen, { type: "handler", payload: { act } }),
    /** A sign by its name, in one tap. */
    sign: ({ name, class: kind }: PinnedSign) => press(pen, { type: "signal", payload: { name, class: kind } }),
    /** A grade of the movement for the last answer. */
    movement: (value: number) => press(pen, { type: "measure", payload: { strand: "movement", value, unit: "grade" } }),
    /** Going away as the reinforcer: the approach was an ask, and this is what it earned. */
    retreat: (metres: number | null) => {
      const { working, onBreak, open, record, way, phase, block } = now();
      if (!working) return refuse(pen, "Start a block first.");
      if (onBreak) return refuse(pen, "On a break. End it first.");
      const { zone } = whereNow(record);
      const away: Fact = {
        type: "retreat",
        payload: { ...(metres === null ? {} : { distance_m: metres }), ...(zone === null ? {} : { zone }) },
      };
      if (open !== null) {
        const answered: Fact[] = open.answered ? [] : [{ type: "response", payload: { answer: "met", phase: open.phase ?? 1 } }];
        press(pen, ...answered, { type: "release" }, away);
      } else {
        const side = block?.side ? { side: block.side } : {};
        press(
          pen,
          {
            type: "trial",
            payload: {
              outcome: "met",
              phase,
              ...side,
              logged: way === "tally" ? "tally" : "timed",
              released: 1,
              reinforced: 1,
              marked: 0,
              reinforcers: 0,
            },
          },
          away,
        );
      }
      pen.setPhase(1);
    },
    /** Who is at the horse from here on, and in which part. */
    takesPart: (who: { readonly name: string; readonly id: string | null }, part: Part) =>
      press(pen, { type: "with", payload: { who: who.name, part, ...(who.id === null ? {} : { person: who.id }) } }),
    rig: (checks: readonly string[], open: readonly string[], side: "L" | "R" | null) =>
      press(pen, { type: "rig", payload: { checks: [...checks], open: [...open], ...(side === null ? {} : { side }) } }),
    skipRig: (side: "L" | "R" | null) => press(pen, { type: "rig", payload: { skipped: true, ...(side === null ? {} : { side }) } }),
    /** A mark the device heard by itself: no click answers it, or it would hear that too. */
    heardMark: (alike: number, agoMs: number) => {
      if (now().working && !now().onBreak) pen.logAgo(agoMs, { type: "mark", payload: { heard: Math.round(alike * 100) / 100 } });
    },
  };
}
