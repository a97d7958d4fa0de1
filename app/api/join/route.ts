import { check, joinSchema } from "@/core/schemas";
import { getHorse, getSession } from "@/store";
import { sessionOfCode } from "../../server/join-codes";
import { Guesses, tooMany } from "../../server/rate";
import { answer, invalid, json, problem, readJson } from "../../server/respond";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

const guesses = new Guesses({ here: 10, everywhere: 60, minutes: 10 });

/** Which session a code stands for. */
export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(joinSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    const { signIn, remote } = whoAsks(request);
    const from = signIn ?? (remote || "machine");
    const wait = await guesses.wait(from);
    if (wait > 0) return problem(429, "Too many tries", tooMany(wait), [], "wait");
    const store = await getStore();
    const id = sessionOfCode(checked.value.code, store.now());
    if (id === null) {
      await guesses.failed(from);
      return problem(404, "No such code", "No session has this code, or its ten minutes are over. Ask for it again.");
    }
    await guesses.succeeded(from);
    const session = await getSession(store, id);
    const horse = await getHorse(store, session.horse_id);
    return json({ session: session.id, horse: horse.id, name: horse.name });
  });
}
