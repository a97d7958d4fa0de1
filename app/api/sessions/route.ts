import { check, newSessionSchema } from "@/core/schemas";
import { addSession } from "@/store";
import { answer, invalid, json, readJson } from "../../server/respond";
import { getStore } from "../../server/store";

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(newSessionSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    const { id, horse, ladder, person, place, start_rung } = checked.value;
    await addSession(await getStore(), {
      id,
      horseId: horse,
      ladderId: ladder,
      personId: person ?? null,
      placeId: place ?? null,
      startRung: start_rung,
    });
    return json({ id }, 201);
  });
}
