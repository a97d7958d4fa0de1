import type { SessionWhole } from "@/core/pack";
import { loadSession } from "@/store";
import { begunOf } from "../../../server/pack";
import { answer, json } from "../../../server/respond";
import { getStore } from "../../../server/store";

/** A session whole, as it was begun and with every tap: for a device that goes on with it or shows its review. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const store = await getStore();
    const { session, events, offsets, position } = await loadSession(store, (await params).id);
    const whole: SessionWhole = {
      begun: begunOf(session),
      createdMs: session.created_ms,
      events,
      clocks: Object.fromEntries(offsets),
      position,
    };
    return json(whole);
  });
}
