import { check, restoreSchema } from "@/core/schemas";
import { answer, invalid, json, readJson } from "../../../server/respond";
import { getStoreKeeper } from "../../../server/store-care";

/** Goes back to a copy by its name in the list; what is there now is set aside. */
export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(restoreSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    return json(await (await getStoreKeeper()).goBackTo(checked.value.file));
  });
}
