import { check, horseSchema } from "@/core/schemas";
import { updateHorse } from "@/store";
import { answer, invalid, json, readJson } from "../../../server/respond";
import { getStore } from "../../../server/store";

export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(horseSchema, body.value, { context: { year: new Date().getFullYear() } });
    if (!checked.ok) return invalid(checked.problems);
    await updateHorse(await getStore(), id, checked.value);
    return json({ id });
  });
}
