import { whyNotToBegin } from "@/core/advice";
import { standingCautions, usedUpCircling } from "@/core/circle";
import { isWatch, SESSION_KIND_FACTS, worksLadders } from "@/core/events";
import { type LoggedBegunCircle, planFromLog } from "@/core/events/circle-log";
import { circles } from "@/core/ladder";
import { check, newSessionSchema, type SessionKind } from "@/core/schemas";
import { cautionsOfPlan, circleState } from "@/core/today";
import { addSession, getHorse, getLadder, involvesOf, openSessions, type Store } from "@/store";
import { horseCare } from "../../server/horse-care";
import { circlePack, yardFacts } from "../../server/pack";
import { answer, invalid, json, problem, readJson } from "../../server/respond";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

/** Why a session may not begin today, or null; see core's whyNotToBegin. */
async function barredBy(
  store: Store,
  horseId: string,
  kind: SessionKind,
  ladderId: string | null,
  rung: number | null,
): Promise<string | null> {
  const horse = await getHorse(store, horseId);
  const { allowance } = await horseCare(store, horse);
  const ladder = ladderId === null || rung === null ? null : await getLadder(store, ladderId);
  return whyNotToBegin({
    watching: isWatch(kind),
    horse,
    allowance,
    ladder: ladder === null || rung === null ? null : { plan: ladder.plan, involves: involvesOf(ladder), rung },
  });
}

/** Where something stands in the way that a word of why would clear. */
interface InTheWay {
  readonly detail: string;
  readonly code: "circle-cautions" | "circling-cap";
}

/**
 * What of a plan on the circle nobody has said a word about; of a ladder that
 * circles, the caps that are used up. The planner shows the same before.
 */
async function circlingInTheWay(
  store: Store,
  horseId: string,
  circle: LoggedBegunCircle | null,
  ladderId: string | null,
  against: string,
  placeId: string | null,
): Promise<InTheWay | null> {
  if (circle === null && (ladderId === null || against !== "")) return null;
  if (circle === null && ladderId !== null && !circles(involvesOf(await getLadder(store, ladderId)))) return null;
  const [pack, yard] = await Promise.all([circlePack(store, await getHorse(store, horseId)), yardFacts(store)]);
  const state = circleState(pack, yard, store.now());
  if (circle !== null) {
    const standing = standingCautions(cautionsOfPlan(state, yard, planFromLog(circle.plan), placeId), circle.overrides);
    if (standing.length === 0) return null;
    return { detail: standing.map(({ sentence }) => sentence).join(" "), code: "circle-cautions" };
  }
  const used = usedUpCircling(state.use, state.caps);
  return used === null ? null : { detail: used, code: "circling-cap" };
}

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(newSessionSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    const {
      id,
      horse,
      kind = "work",
      ladder = null,
      person,
      place,
      start_rung: rung = null,
      kit,
      started_ms: startedMs = null,
      made_ms: madeMs = null,
      beside = false,
      circle: begunCircle = null,
      against: why = "",
    } = checked.value;
    const { evidence, needs, plan } = SESSION_KIND_FACTS[kind];
    const circle = plan === "circle" ? begunCircle : null;
    const against = (why ?? "").trim();
    if (needs === "circle plan" && circle === null) return invalid([{ path: "circle", message: "The plan is missing." }]);
    const onLadder = evidence === "none" ? null : ladder;
    const store = await getStore();
    if (startedMs !== null && startedMs > store.now())
      return invalid([{ path: "started_ms", message: "It cannot have begun in the future." }]);
    // What was written down later, or begun on a device with no server, has been done already; today's limits say nothing of it.
    const worked = startedMs !== null || madeMs !== null;
    const barred = worked ? null : await barredBy(store, horse, kind, onLadder, rung);
    if (barred !== null) return problem(409, "Not today", barred);
    const standing = worked ? null : await circlingInTheWay(store, horse, circle, onLadder, against, place ?? null);
    if (standing !== null) return problem(409, "Not as it is", standing.detail, [], standing.code);
    const running = worksLadders(kind) && !worked && !beside ? (await openSessions(store, horse)).find((one) => one.running) : undefined;
    if (running !== undefined && running.id !== id.toLowerCase())
      return problem(
        409,
        "A session is running",
        "This horse has a session running. Go on with it, or begin another beside it.",
        [],
        "session-running",
      );
    const input = {
      id: id.toLowerCase(),
      horseId: horse,
      kind,
      ladderId: onLadder,
      personId: person ?? null,
      placeId: place ?? null,
      startRung: onLadder === null ? null : rung,
      kitIds: kit ?? [],
      circle: circle ?? (against === "" ? null : { against }),
    };
    const createdMs = startedMs ?? (madeMs === null ? null : Math.min(madeMs, store.now()));
    // People and places are the owner's to add; what a helper names stands in the session's own words.
    const named = {
      person: (checked.value.person_name ?? "").trim(),
      place: (checked.value.place_name ?? "").trim(),
      make: whoAsks(request).role === "owner",
    };
    await addSession(store, input, { named, worked: madeMs !== null, ...(createdMs === null ? {} : { createdMs }) });
    return json({ id: input.id }, 201);
  });
}
