import { writeEventsCsv } from "@/core/formats";
import { derivedSeconds, loadSession } from "@/store";
import { answer, download } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(async () => {
    const loaded = await loadSession(await getStore(), (await params).id);
    return download(writeEventsCsv(loaded.events, derivedSeconds(loaded)), "events.csv");
  });
}
