import { PART_WORDS, type SessionEvent } from "@/core/schemas";
import { counted } from "@/core/words";

/** Who recorded a session, with the part each took; nothing where it was one person without a part. */
export function recordersOf(events: readonly Pick<SessionEvent, "recorder" | "part">[]): { readonly who: string; readonly taps: number }[] {
  const counts = new Map<string, number>();
  for (const { recorder, part } of events) {
    const name = recorder.slice(recorder.indexOf(":") + 1);
    // What was put right afterwards is no part at the horse.
    if (name === "review" || name.endsWith(":review")) continue;
    const who = `${name === "" ? "a device without a name" : name}${part === undefined ? "" : `, ${PART_WORDS[part]}`}`;
    counts.set(who, (counts.get(who) ?? 0) + 1);
  }
  return counts.size < 2 && ![...counts.keys()].some((who) => who.includes(", ")) ? [] : [...counts].map(([who, taps]) => ({ who, taps }));
}

/** The same as a line under the review's heading. */
export function Recorders({ list }: { list: readonly { readonly who: string; readonly taps: number }[] }) {
  if (list.length === 0) return null;
  return (
    <p className="figures mt-1 text-soft">Recorded by {list.map(({ who, taps }) => `${who} (${counted(taps, "tap")})`).join("; ")}.</p>
  );
}
