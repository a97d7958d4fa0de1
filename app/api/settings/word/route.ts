import { check } from "@/core/schemas";
import { settingsSchema } from "@/core/settings";
import { getSettings, setSettings } from "@/store";
import { answer, invalid, json, readJson } from "../../../server/respond";
import { getStore } from "../../../server/store";

/** Keeps the thresholds; one that is out of bounds refuses them all, by its name. */
export function PUT(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(settingsSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    const store = await getStore();
    await setSettings(store, checked.value);
    return json(await getSettings(store));
  });
}
