import { writeSessionsCsv } from "@/core/formats";
import { loadSession } from "@/store";
import { answer, download } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    const { record } = await loadSession(await getStore(), id);
    return download(writeSessionsCsv([{ id, record }]), "sessions.csv");
  });
}
