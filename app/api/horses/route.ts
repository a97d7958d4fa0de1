import { check, horseSchema } from "@/core/schemas";
import { addHorse } from "@/store";
import { answer, invalid, json, readJson } from "../../server/respond";
import { getStore } from "../../server/store";

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(horseSchema, body.value, { context: { year: new Date().getFullYear() } });
    if (!checked.ok) return invalid(checked.problems);
    return json({ id: await addHorse(await getStore(), checked.value) }, 201);
  });
}
