import { writeEventsCsv } from "@/core/formats";
import { derivedSeconds, loadSession } from "@/store";
import { answer, download } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const loaded = await loadSession(await getStore(), (await params).id);
    return download(writeEventsCsv(loaded.events, derivedSeconds(loaded)), "events.csv");
  });
}
