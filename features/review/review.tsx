import type { NextStart } from "@/core/advice";
import type { SidePicture } from "@/core/compare";
import { endOfWorkMs, type SessionRecord, summariseSession } from "@/core/record";
import type { YardSettings } from "@/core/settings";
import type { UnitSystem } from "@/core/units";
import { counted } from "@/core/words";
import { CircleReview } from "../circle/circle-review";
import { AdviceHistory } from "./advice-history";
import { Answers } from "./answers";
import { Around } from "./around";
import { Between } from "./between";
import { BlocksTable } from "./blocks-table";
import type { ReviewFacts } from "./facts";
import { Handler } from "./handler";
import { ReviewHead } from "./head";
import { HowLight } from "./lightness";
import { NextTime } from "./next-time";
import { Notes } from "./notes";
import { PutRight, type PutRightFacts } from "./put-right";
import { sentRecord } from "./sent-record";
import { SessionRibbon } from "./session-ribbon";
import { SignsAgainstUsual } from "./signs-against-usual";
import { SilentPauses } from "./silent-pauses";
import { TakeAlong } from "./take-along";
import { TrialsInWords } from "./trials-in-words";
import { Within } from "./within";

/** Which of the finish's questions a note answers. */
const NOTE_ABOUT: Readonly<Record<string, string>> = { better: "Better: ", next: "Next: ", handler: "My own point: " };

/** The notes of a session, each with the question of the finish it answers. */
const notesOf = ({ facts }: SessionRecord) =>
  facts
    .filter((fact) => fact.type === "note")
    .map(({ id, payload: { about, text } }) => ({ id, about: NOTE_ABOUT[about ?? ""] ?? "", text }));

/** What a picture of the ribbon is called. */
function ribbonName({ startWallMs, header }: SessionRecord): string {
  const day = startWallMs === null ? "" : ` ${new Date(startWallMs).toISOString().slice(0, 10)}`;
  return `${header?.horse ?? "session"}${day}`;
}

/** Every trial in words, with what is counted beside them. Nothing where nothing was asked. */
function EachTrial({
  record,
  summary,
  trials,
}: {
  record: SessionRecord;
  summary: ReturnType<typeof summariseSession>;
  trials: ReturnType<typeof sentRecord>["trials"];
}) {
  if (trials.length === 0) return null;
  return (
    <TrialsInWords trials={trials} phases={record.blocks.map(({ criterion }) => criterion?.phases)}>
      <p className="mt-3 text-sm text-soft">
        At most {summary.longestMetRun} met in a row; {counted(record.offers, "offer")} nobody asked for;{" "}
        {counted(record.cutOffAsks, "ask")} cut off before an answer; {counted(record.undone, "tap")} undone, {record.struck} struck out.
      </p>
    </TrialsInWords>
  );
}

/** One session as it went: ribbon, numbers with their reasons, blocks, words, notes. */
export function Review({
  storeId,
  horseId,
  sessionId,
  record,
  next,
  facts,
  sides,
  settings,
  units,
  restingBreaths,
  heatLowerCelsius,
  zones,
  putRight,
  firstTrial = null,
}: {
  storeId: string;
  horseId: string;
  sessionId: string;
  record: SessionRecord;
  next: NextStart | null;
  facts: ReviewFacts;
  /** What the horse's sessions of the last days say of its sides. */
  sides: SidePicture;
  settings: YardSettings;
  units: UnitSystem;
  /** The horse's own breathing at rest, a minute; null where it is not known. */
  restingBreaths: number | null;
  /** By how much the bounds of heat lie lower for this horse. */
  heatLowerCelsius: number;
  /** The zones of the place it was worked in, as its plan has them. */
  zones: readonly { readonly name: string; readonly kind: string }[];
  putRight: Omit<PutRightFacts, "corrections">;
  /** The number of the trial that was asked for; left out for none. */
  firstTrial?: number | null;
}) {
  const summary = summariseSession(record);
  const sent = sentRecord(record);
  return (
    <>
      <ReviewHead storeId={storeId} horseId={horseId} sessionId={sessionId} record={record} summary={summary} facts={facts} />
      <NextTime next={next} summary={summary} finished={record.finishMs !== null} />
      <SilentPauses storeId={storeId} sessionId={sessionId} record={{ timeLine: record.timeLine }} />
      <CircleReview
        record={record}
        horseId={horseId}
        sessionId={sessionId}
        restingBreaths={restingBreaths}
        settings={settings}
        units={units}
      />
      {record.trials.length === 0 ? (
        facts.watched || record.facts.some(({ type }) => type === "circle.start") ? null : (
          <p className="mt-6 text-lg">Nothing was asked in this session.</p>
        )
      ) : (
        <>
          <div className="mt-4">
            <SessionRibbon record={sent.drawn} trials={sent.trials} endMs={endOfWorkMs(record)} name={ribbonName(record)} />
          </div>
          <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 md:grid-cols-2 lg:grid-cols-3">
            <Answers summary={summary} />
            <HowLight measures={summary.measures} />
            <Handler record={record} summary={summary} sides={sides} sidesDays={settings.sidesDays} />
          </div>
        </>
      )}
      <Within record={record} />
      <Between record={record} earlierActs={facts.earlierActs} />
      <Around
        record={record}
        zones={zones}
        restingBreaths={restingBreaths}
        heatLowerCelsius={heatLowerCelsius}
        settings={settings}
        fahrenheit={units === "imperial"}
      />
      <SignsAgainstUsual signs={facts.signs} usualDays={settings.usualDays} />
      {record.blocks.length > 0 && (
        <section className="mt-9">
          <h2 className="mb-2 text-xl">Blocks</h2>
          <BlocksTable summary={summary} />
        </section>
      )}
      <EachTrial record={record} summary={summary} trials={sent.trials} />
      <div className="mt-9 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-2">
        <AdviceHistory record={record} />
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-8">
          <Notes storeId={storeId} sessionId={sessionId} notes={notesOf(record)} />
          <TakeAlong sessionId={sessionId} />
        </div>
      </div>
      <PutRight key={firstTrial} record={sent.right} facts={{ ...putRight, corrections: facts.corrections }} first={firstTrial} />
    </>
  );
}
