import { type Chance, pick, seededChance } from "@/core/chance";
import type { EventType, Payload, SessionEvent } from "@/core/schemas";
import { drawUuid } from "@/demo/event-log";

/** What a random session is made of. */
export interface RandomSession {
  readonly id: string;
  readonly events: SessionEvent[];
}

/** One device with its own clock: started at some moment, its wall clock off by some time. */
class Device {
  private seq = 0;
  private load: string;
  private loadStartMs = 0;
  constructor(
    readonly recorder: string,
    private readonly session: string,
    private readonly chance: Chance,
    private readonly baseWallMs: number,
  ) {
    this.load = drawUuid(chance);
  }

  reload(nowMs: number): void {
    this.load = drawUuid(this.chance);
    this.seq = 0;
    this.loadStartMs = nowMs;
  }

  event(nowMs: number, type: EventType, payload: object): SessionEvent {
    return {
      id: drawUuid(this.chance),
      session: this.session,
      recorder: this.recorder,
      load: this.load,
      seq: this.seq++,
      mono_ms: nowMs - this.loadStartMs + 3,
      wall_ms: this.baseWallMs + nowMs,
      type,
      payload,
    } as SessionEvent;
  }
}

/**
 * A session as hurried people really log one: tally and timed trials mixed,
 * undo at any depth, corrections, overrides, breaks, reloads, two recorders.
 */
export function randomSession(seed: number, startWallMs = Date.UTC(2026, 5, 1, 10, 0, 0), steps = 90): RandomSession {
  const chance = seededChance(seed);
  const id = drawUuid(chance);
  const first = new Device("phone:ana", id, chance, startWallMs);
  const second = new Device("tablet:bo", id, chance, startWallMs);
  const events: SessionEvent[] = [];
  let now = 0;
  let block = 0;
  let onBreak = false;
  const wait = (least: number, most: number) => {
    now += Math.round((least + chance() * (most - least)) * 1000);
  };
  const log = <Type extends EventType>(device: Device, type: Type, payload = {} as Payload<Type>) => {
    const event = device.event(now, type, payload);
    events.push(event);
    return event;
  };
  const startBlock = (device: Device) => {
    block++;
    const stay = chance() < 0.25;
    log(device, "block.start", {
      block,
      behaviour: pick(chance, ["plate, ‘north’", "=gate", 'tray "long"']),
      ladder: "ladder-r",
      version: 1,
      rung: 1 + Math.floor(chance() * 4),
      criterion: {
        sentence: "Two steps.",
        max_phase: 3,
        max_latency_s: 9,
        ...(stay ? { stay_s: 2, working: { strand: "stay", unit: "s", target: 2, harder: "more" } } : {}),
        ...(chance() < 0.3 ? { min_movement: 2, handler_most: [{ act: "steps", most: 1 }] } : {}),
        phases: ["look", "point", "line", "tap"],
        schedule: pick(chance, [{ kind: "every" }, { kind: "fixed", ratio: 2 }, { kind: "variable", ratio: 2, list: [1, 3, 2, 2] }]),
        dwell_s: [2, 2, 2, 2],
        max_s: 20,
        ...(chance() < 0.5 ? { polite_s: 1 } : {}),
      },
      side: pick(chance, ["L", "R"]),
      kind: pick(chance, ["work", "work", "warm-up", "probe"]),
      planned: 8,
    });
  };
  const timedTrial = (device: Device, other: Device) => {
    log(device, "ask", { phase: 1 });
    const raises = Math.floor(chance() * 4);
    for (let phase = 2; phase <= raises; phase++) {
      wait(1, 3);
      log(device, "phase", { phase, by: "press" });
    }
    for (let answers = Math.floor(chance() * 3); answers > 0; answers--) {
      wait(0.3, 3);
      log(device, "response", { answer: pick(chance, ["met", "met", "try", "wrong", "refused"]), phase: Math.max(1, raises) });
    }
    wait(0.1, 2.5);
    if (chance() < 0.3) log(device, "criterion");
    wait(0.1, 0.9);
    if (chance() < 0.85) log(device, "release");
    wait(0.05, 0.8);
    if (chance() < 0.5) log(chance() < 0.5 ? device : other, "mark");
    wait(0.3, 2);
    if (chance() < 0.5) log(other, "feed", { pieces: 1 + Math.floor(chance() * 2), where: "shoulder" });
    if (chance() < 0.2) log(device, "measure", { strand: "ease", value: Math.floor(chance() * 5), unit: "grade" });
  };
  // What happens around the asks: none of it may touch a trial.
  const scene = (device: Device) => {
    const kind = pick(chance, [
      "offer",
      "stay",
      "gait",
      "depart",
      "return",
      "zone",
      "breath",
      "safety",
      "sample",
      "heart",
      "swipe",
      "wrong",
      "wrong",
      "own",
      "handler",
      "with",
      "retreat",
      "run",
      "movement",
    ] as const);
    const last = events.findLast(({ type }) => type === "trial");
    if (kind === "offer") log(device, "offer", { earned: "ignored" });
    else if (kind === "stay") {
      log(device, "trial", { outcome: "met", phase: 1, logged: "tally", value: 1.4, unit: "s", ended_by: "handler" });
      wait(0.5, 2);
      log(device, "stay", { ended_by: "left", handler_distance_m: 2 });
    } else if (kind === "gait") log(device, "gait", { gait: "trot", direction: pick(chance, ["left", "right"]), radius_m: 6 });
    else if (kind === "zone") log(device, "zone", { zone: "corner NE" });
    else if (kind === "breath") log(device, "breath", { taps_ms: [0, 2100, 4300] });
    else if (kind === "safety") {
      log(device, "signal", { name: "rears", class: "danger" });
      wait(2, 6);
      log(device, "safety", { what: "rears; a bird", then: "go on easier" });
    } else if (kind === "sample") log(device, "sample", { question: "with me", answer: "yes", beep: 1, interval_s: 10 });
    else if (kind === "heart") log(device, "measure", { strand: "heart rate", value: 44, unit: "/min" });
    else if (kind === "swipe" && last !== undefined)
      log(device, "correct", { event: last.id, payload: { phase: 3, ended_by: "criterion" }, reason: "swiped" });
    else if (kind === "wrong") {
      const span = chance() < 0.6;
      log(device, "wrong", {
        did: pick(chance, ["left", "pulled", "=odd word"]),
        met: pick(chance, ["moved on", "ignored"]),
        ...(span ? { goes_on: true } : {}),
      });
      wait(0.5, 6);
      if (span && chance() < 0.8) log(chance() < 0.7 ? device : second, "wrong.end");
    } else if (kind === "own") {
      const what = pick(chance, ["looks", "settles"] as const);
      log(device, "own.start", { what, at: "a flag" });
      wait(0.5, 5);
      if (chance() < 0.8) log(device, "own.end", { what, ended_by: pick(chance, ["horse", "handler"]) });
    } else if (kind === "handler") log(device, "handler", { act: pick(chance, ["steps", "late"]), n: 1 + Math.floor(chance() * 2) });
    else if (kind === "with") log(device, "with", { who: pick(chance, ["Bo", "Ana"]), part: "handles" });
    else if (kind === "retreat") log(device, "retreat", { distance_m: 2, zone: "gate" });
    else if (kind === "movement") log(device, "measure", { strand: "movement", value: Math.floor(chance() * 5), unit: "grade" });
    else if (kind === "run") {
      log(device, "run.start", { chain: "c", name: "Loads", links: ["one", "two", "three"] });
      for (let link = 1; link <= 3; link++) {
        wait(1, 4);
        if (chance() < 0.3) {
          log(device, "run.end", { link, reason: "left", did: "asked again" });
          break;
        }
        log(device, "link", { link });
      }
    } else if (kind === "depart" || kind === "return") log(device, kind);
  };
  log(first, "preflight", { air_c: 12, humidity: 60, pouch: 30, skipped: false });
  log(first, "session.start", { horse: "Tøve-’Lund", handler: "Ana", place: "pen", method: "combined" });
  wait(5, 20);
  startBlock(first);
  for (let step = 0; step < steps; step++) {
    wait(0.5, 6);
    const device = chance() < 0.75 ? first : second;
    const other = device === first ? second : first;
    const draw = chance();
    const own = events.filter((event) => event.recorder === device.recorder && event.type !== "session.start");
    if (draw < 0.3)
      log(device, "trial", {
        outcome: pick(chance, ["met", "met", "try", "miss", "refused"]),
        phase: 1 + Math.floor(chance() * 4),
        logged: "tally",
        ...(chance() < 0.4 ? { reinforced: 1, marked: 1, reinforcers: 1 } : {}),
      });
    else if (draw < 0.62) timedTrial(device, other);
    else if (draw < 0.74 && own.length > 0) log(device, "undo", { event: pick(chance, own.slice(-6)).id });
    else if (draw < 0.79 && events.length > 5)
      log(
        other,
        "correct",
        chance() < 0.4
          ? { event: pick(chance, events.slice(-12)).id, strike: true, reason: "mistaken" }
          : { event: pick(chance, events.slice(-12)).id, payload: { phase: 2 }, reason: "phase" },
      );
    else if (draw < 0.83) startBlock(device);
    else if (draw < 0.88) {
      log(device, onBreak ? "break.end" : "break.start", onBreak ? {} : { reason: "rest" });
      onBreak = !onBreak;
    } else if (draw < 0.92)
      log(
        device,
        "signal",
        pick(chance, [
          { name: "licks and chews", class: "ease" },
          { name: "paws", class: "tension" },
        ]),
      );
    else if (draw < 0.95) device.reload(now);
    else if (draw < 0.97) log(device, "override", { of: pick(chance, events).id, from: "try", to: "met", reason: "seen from behind" });
    else scene(device);
  }
  if (onBreak) log(first, "break.end");
  wait(1, 5);
  log(first, "session.end");
  log(first, "breath", { taps_ms: [0, 2000, 4100, 6000] });
  log(first, "aftercare", { walked_off: true, legs: "looked at", breathing: [{ wall_ms: startWallMs, per_min: 30 }] });
  wait(5, 9);
  log(second, "note", { text: '-better, "soft"\nnext: left first' });
  return { id, events };
}
