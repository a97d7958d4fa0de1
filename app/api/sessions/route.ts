import { check, newSessionSchema, type SessionKind } from "@/core/schemas";
import { whyNotToBegin } from "@/core/word";
import { addSession, getHorse, getLadder, involvesOf, openSessions, type Store } from "@/store";
import { horseCare } from "../../server/horse-care";
import { answer, invalid, json, problem, readJson } from "../../server/respond";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

/** Watching asks nothing of the horse and stays open when work is not. */
const WATCHING: readonly SessionKind[] = ["connection", "signs"];

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
    watching: WATCHING.includes(kind),
    horse,
    allowance,
    ladder: ladder === null || rung === null ? null : { plan: ladder.plan, involves: involvesOf(ladder), rung },
  });
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
    } = checked.value;
    const store = await getStore();
    if (startedMs !== null && startedMs > store.now())
      return invalid([{ path: "started_ms", message: "It cannot have begun in the future." }]);
    // What was written down later, or begun on a device with no server, has been done already; today's limits say nothing of it.
    const worked = startedMs !== null || madeMs !== null;
    const barred = worked ? null : await barredBy(store, horse, kind, kind === "work" ? ladder : null, rung);
    if (barred !== null) return problem(409, "Not today", barred);
    const running = kind === "work" && !worked && !beside ? (await openSessions(store, horse)).find((one) => one.running) : undefined;
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
      ladderId: kind === "work" ? ladder : null,
      personId: person ?? null,
      placeId: place ?? null,
      startRung: kind === "work" ? rung : null,
      kitIds: kit ?? [],
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
