import { binSchema, check, goesWithWords } from "@/core/schemas";
import { goesWith } from "@/store";
import { answer, invalid, json } from "../../../server/respond";
import { getStore } from "../../../server/store";

/** What would go into the bin with something, said before it does. */
export function GET(request: Request) {
  return answer(request, async () => {
    const asked = new URL(request.url).searchParams;
    const checked = check(binSchema, { kind: asked.get("kind"), id: asked.get("id") });
    if (!checked.ok) return invalid(checked.problems);
    const { kind, id } = checked.value;
    return json({ words: goesWithWords(kind, await goesWith(await getStore(), kind, id)) });
  });
}
