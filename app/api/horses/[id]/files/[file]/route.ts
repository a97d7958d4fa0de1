import { type SessionForFile, writeSessionsCsv, writeTrialsCsv } from "@/core/formats";
import { readFilter } from "@/core/past";
import { getHorse, listLadders, loadSession, pastOfHorse } from "@/store";
import { spanIn } from "../../../../../server/past-of";
import { answer, problem } from "../../../../../server/respond";
import { getStore } from "../../../../../server/store";

const WRITERS: Readonly<Record<string, (sessions: readonly SessionForFile[]) => string>> = {
  "trials.csv": writeTrialsCsv,
  "sessions.csv": writeSessionsCsv,
};

/** Trials or sessions of a horse in a span, of one ladder or all, as one file: what `analyse` takes. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string; file: string }> }) {
  const { id, file } = await params;
  return answer(request, async () => {
    const write = WRITERS[file];
    if (write === undefined) return problem(404, "Not found", "There is no such file.");
    const store = await getStore();
    await getHorse(store, id);
    const asked = Object.fromEntries(new URL(request.url).searchParams);
    const span = spanIn(store, asked);
    const { ladder } = readFilter(asked.of ?? "");
    const ladders = await listLadders(store, id);
    const only = ladders.filter((one) => one.id === ladder);
    const past = await pastOfHorse(store, id, {
      fromMs: span.fromMs,
      toMs: span.toMs,
      ladders: only.length === 0 ? ladders : only,
      ...(only.length === 0 ? {} : { only: "these ladders" as const }),
    });
    const ids = past.sessions.map((session) => session.id);
    let at = 0;
    const body = new ReadableStream<Uint8Array>({
      async pull(controller) {
        const next = ids[at];
        if (next === undefined) {
          if (at === 0) controller.enqueue(new TextEncoder().encode(write([])));
          return controller.close();
        }
        const { record } = await loadSession(store, next);
        // Of a ladder's file only its own trials: a session may hold others.
        const trials =
          only.length === 0
            ? record.trials
            : record.trials.filter(({ blockIndex }) => blockIndex !== null && record.blocks[blockIndex]?.ladder === ladder);
        const text = write([{ id: next, record: { ...record, trials } }]);
        controller.enqueue(new TextEncoder().encode(at === 0 ? text : text.slice(text.indexOf("\n") + 1)));
        at++;
      },
    });
    return new Response(body, {
      headers: {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="${file}"`,
        "cache-control": "no-store",
      },
    });
  });
}
