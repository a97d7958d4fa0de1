import { removeSampleData } from "@/store";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

export function DELETE() {
  return answer(async () => {
    await removeSampleData(await getStore());
    return json({ removed: true });
  });
}
