import { workedOn } from "@/core/circle";
import { askedName } from "@/core/know";
import type { SessionRecord, SessionSummary } from "@/core/record";
import { counted } from "@/core/words";
import { Day } from "@/ui/day";
import { minutesWords } from "@/ui/measure";
import { WayLink } from "@/ui/way";
import { RefusedTaps } from "../device/refused-taps";
import type { ReviewFacts } from "./facts";
import { Recorders } from "./recorders";

/** What it was about: behaviour, rungs or items, place, handler, how many asks. */
function aboutWords(record: SessionRecord, { onLadders, watched }: Pick<ReviewFacts, "onLadders" | "watched">): string {
  const circled = record.facts.find((fact) => fact.type === "circle.start");
  const { about, rungs } = workedOn(circled?.type === "circle.start" ? circled.payload.plan.form : null, record.blocks);
  const looked = new Set(record.blocks.flatMap((block) => askedName(block) ?? [])).size;
  const level = onLadders
    ? rungs.length > 0 && `rung${rungs.length > 1 ? "s" : ""} ${rungs.join(", ")}`
    : looked > 0 && counted(looked, "item");
  return [...about, level, record.header?.place, record.header?.handler, !watched && counted(record.trials.length, "ask")]
    .filter((part) => typeof part === "string" && part !== "")
    .join(" · ");
}

/** When it was and what it was about; what is to be known before its numbers are read. */
export function ReviewHead({
  storeId,
  horseId,
  sessionId,
  record,
  summary,
  facts,
}: {
  storeId: string;
  horseId: string;
  sessionId: string;
  record: SessionRecord;
  summary: SessionSummary;
  facts: ReviewFacts;
}) {
  const { moved, recorders } = facts;
  return (
    <>
      <h1 className="text-[2rem]">
        {record.startWallMs === null ? "Not begun" : <Day ms={record.startWallMs} long />}, {minutesWords(summary.workSeconds)}
        <span className="mt-1 block font-sans text-base font-normal text-soft">{aboutWords(record, facts)}</span>
      </h1>
      {moved !== null && (
        <p className="mt-1 text-soft">
          Moved here from {moved.from} <Day ms={moved.wallMs} />
          {moved.reason === "" ? "." : `: ${moved.reason.replace(/\.$/, "")}.`}
        </p>
      )}
      <Recorders list={recorders} />
      <RefusedTaps storeId={storeId} sessionId={sessionId} />
      {record.finishMs === null && (
        <p className="mt-3 border-l-4 border-ochre pl-4">
          This session is not finished; the numbers go up to the last tap.{" "}
          <WayLink href={`/horses/${horseId}/work/${sessionId}`} className="link">
            Go on with it
          </WayLink>
        </p>
      )}
      {summary.late && (
        <p className="mt-3 border-l-4 border-ochre pl-4">
          Written down later, from memory or paper: the counts and phases are as they were written; times, rates and the order inside a
          block are rough. No lag, latency or pause between answers is taken from it.
        </p>
      )}
    </>
  );
}
