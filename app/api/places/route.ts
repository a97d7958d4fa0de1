import { check, placeSchema } from "@/core/schemas";
import { addPlace } from "@/store";
import { answer, invalid, json, readJson } from "../../server/respond";
import { getStore } from "../../server/store";

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(placeSchema, body.value);
    if (!checked.ok) return invalid(checked.problems);
    return json({ id: await addPlace(await getStore(), checked.value) }, 201);
  });
}
