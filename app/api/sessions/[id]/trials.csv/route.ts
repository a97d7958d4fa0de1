import { writeTrialsCsv } from "@/core/formats";
import { loadSession } from "@/store";
import { answer, download } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(async () => {
    const { id } = await params;
    const { record } = await loadSession(await getStore(), id);
    return download(writeTrialsCsv([{ id, record }]), "trials.csv");
  });
}
