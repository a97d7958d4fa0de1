import "server-only";
import type * as yup from "yup";
import { check } from "@/core/schemas";
import type { Store } from "@/store";
import { today } from "./horse-care";
import { answer, invalid, json, readJson } from "./respond";
import { getStore } from "./store";

/**
 * A route that takes a form: reads the JSON body, checks it by its schema with
 * the present day as context, and saves it. `save` gives what to answer with.
 */
export function takeForm<T>(
  request: Request,
  schema: yup.Schema<T>,
  save: (store: Store, value: T) => Promise<object>,
  status: 200 | 201 = 200,
): Promise<Response> {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const store = await getStore();
    const checked = check(schema, body.value, { context: { today: today(store) } });
    if (!checked.ok) return invalid(checked.problems);
    return json(await save(store, checked.value), status);
  });
}

/** A route that only needs the request to be our own. */
export const takeAct = (request: Request, act: (store: Store) => Promise<object>): Promise<Response> =>
  answer(request, async () => json(await act(await getStore())));
