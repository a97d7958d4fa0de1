import { WORD_SETTING_FIELDS, wordSettingProblem, wordSettingsFrom } from "@/core/session";
import { getWordSettings, setWordSettings } from "@/store";
import { answer, invalid, json, readJson } from "../../../server/respond";
import { getStore } from "../../../server/store";

/** Keeps the thresholds of the word; one that is out of bounds refuses them all, by its name. */
export function PUT(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const given = typeof body.value === "object" && body.value !== null ? (body.value as Record<string, unknown>) : {};
    const unknown = Object.keys(given).filter((key) => !WORD_SETTING_FIELDS.some((field) => field.key === key));
    if (unknown.length > 0) return invalid(unknown.map((path) => ({ path, message: `Not known here: ${path}.` })));
    const problems = WORD_SETTING_FIELDS.flatMap((field) => {
      const value = given[field.key];
      if (typeof value !== "number") return [{ path: field.key, message: `${field.label}: a number is needed.` }];
      const why = wordSettingProblem(field, field.share ? value * 100 : value);
      return why === null ? [] : [{ path: field.key, message: `${field.label}: ${why}` }];
    });
    if (problems.length > 0) return invalid(problems);
    const store = await getStore();
    await setWordSettings(store, wordSettingsFrom(given));
    return json(await getWordSettings(store));
  });
}
