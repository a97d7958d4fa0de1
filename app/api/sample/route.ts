import { removeSampleData } from "@/store";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

export function DELETE(request: Request) {
  return answer(request, async () => {
    await removeSampleData(await getStore());
    return json({ removed: true });
  });
}
