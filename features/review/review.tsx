import { workedOn } from "@/core/circle";
import type { SidePicture } from "@/core/compare";
import { askedName } from "@/core/know";
import { endOfWorkMs, type SessionRecord, slimTrial, summariseSession } from "@/core/record";
import type { YardSettings } from "@/core/settings";
import type { UnitSystem } from "@/core/units";
import type { NextStart } from "@/core/word";
import { counted } from "@/core/words";
import { Day } from "@/ui/day";
import { minutesWords } from "@/ui/measure";
import { WayLink } from "@/ui/way";
import { CircleReview } from "../circle/circle-review";
import { RefusedTaps } from "../device/refused-taps";
import { Answers } from "./answers";
import { Around } from "./around";
import { Between } from "./between";
import { BlocksTable } from "./blocks-table";
import type { ReviewFacts } from "./facts";
import { Handler } from "./handler";
import { HowLight } from "./lightness";
import { Notes } from "./notes";
import { PutRight, type PutRightFacts } from "./put-right";
import { Recorders } from "./recorders";
import { SessionRibbon } from "./session-ribbon";
import { SilentPauses } from "./silent-pauses";
import { TrialsInWords } from "./trials-in-words";
import { Within } from "./within";
import { WordHistory } from "./word-history";

/** Which of the finish's questions a note answers. */
const NOTE_ABOUT: Readonly<Record<string, string>> = { better: "Better: ", next: "Next: ", handler: "My own point: " };

/** One session as it went: ribbon, numbers with their reasons, blocks, words, notes. */
export function Review({
  storeId,
  horseId,
  sessionId,
  record,
  next,
  facts: { signs, onLadders, watched, recorders, moved, earlierActs, corrections },
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
  const circled = record.facts.find((fact) => fact.type === "circle.start");
  const { about, rungs } = workedOn(circled?.type === "circle.start" ? circled.payload.plan.form : null, record.blocks);
  const looked = new Set(record.blocks.flatMap((block) => (onLadders ? [] : (askedName(block) ?? [])))).size;
  const notes = record.facts
    .filter((fact) => fact.type === "note")
    .map((fact) => ({
      id: fact.id,
      about: NOTE_ABOUT[fact.payload.about ?? ""] ?? "",
      text: fact.payload.text,
    }));
  // What goes to the browser is what it draws and changes there: the words and numbers of every tap stay here.
  const { header, startWallMs, finishMs, lastMs, blocks, openAsk, timeLine } = record;
  // A trial goes once, without what it does not hold.
  const trials = record.trials.map(slimTrial);
  const drawn = { blocks, openAsk, finishMs, timeLine, facts: record.facts.filter(({ type }) => type === "signal") };
  const ofTrials = new Set(record.trials.flatMap(({ eventId, eventIds }) => [eventId, ...eventIds]));
  const right = {
    header,
    startWallMs,
    finishMs,
    lastMs,
    blocks,
    trials,
    facts: record.facts.flatMap(({ id, type, ms }) => (ofTrials.has(id) ? [] : [{ id, type, ms }])),
  };
  const day = record.startWallMs === null ? "" : ` ${new Date(record.startWallMs).toISOString().slice(0, 10)}`;
  const ribbonName = `${record.header?.horse ?? "session"}${day}`;
  const file = (name: string) => `/api/sessions/${sessionId}/${name}`;
  return (
    <>
      <h1 className="text-[2rem]">
        {record.startWallMs === null ? "Not begun" : <Day ms={record.startWallMs} long />}, {minutesWords(summary.workSeconds)}
        <span className="mt-1 block font-sans text-base font-normal text-soft">
          {[
            ...about,
            onLadders
              ? rungs.length === 0
                ? null
                : `rung${rungs.length > 1 ? "s" : ""} ${rungs.join(", ")}`
              : looked === 0
                ? null
                : counted(looked, "item"),
            record.header?.place,
            record.header?.handler,
            watched ? null : counted(record.trials.length, "ask"),
          ]
            .filter((part) => part !== null && part !== undefined && part !== "")
            .join(" · ")}
        </span>
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
        watched || record.facts.some(({ type }) => type === "circle.start") ? null : (
          <p className="mt-6 text-lg">Nothing was asked in this session.</p>
        )
      ) : (
        <>
          <div className="mt-4">
            <SessionRibbon record={drawn} trials={trials} endMs={endOfWorkMs(record)} name={ribbonName} />
          </div>
          <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 md:grid-cols-2 lg:grid-cols-3">
            <Answers summary={summary} />
            <HowLight measures={summary.measures} />
            <Handler record={record} summary={summary} sides={sides} sidesDays={settings.sidesDays} />
          </div>
        </>
      )}
      <Within record={record} />
      <Between record={record} earlierActs={earlierActs} />
      <Around
        record={record}
        zones={zones}
        restingBreaths={restingBreaths}
        heatLowerCelsius={heatLowerCelsius}
        settings={settings}
        fahrenheit={units === "imperial"}
      />
      {signs.length > 0 && (
        <section className="mt-8">
          <h2 className="mb-1 text-xl">Signs, against its own usual</h2>
          {signs.map((words) => (
            <p key={words} className="figures">
              {words}
            </p>
          ))}
          <details className="text-sm text-soft">
            <summary>how</summary>
            Against earlier sessions of the same kind in the {settings.usualDays} days before, session by session, since signs come in bouts
            and days: unusual is what lies outside the 95 % prediction interval of their roots (Anscombe 1948, Student 1908). Signs and
            minutes of work alone.
          </details>
        </section>
      )}
      {next !== null && (
        <section className="mt-9 border-t-2 border-ink pt-4">
          <h2 className="inline text-2xl text-tarn">Next time: {next.headline.charAt(0).toLowerCase() + next.headline.slice(1)}</h2>
          <p className="text-soft lg:ml-5 lg:inline">{next.reason}</p>
          {next.beside !== undefined && <p className="text-sm text-soft">{next.beside}</p>}
        </section>
      )}
      {record.blocks.length > 0 && (
        <section className="mt-9">
          <h2 className="mb-2 text-xl">Blocks</h2>
          <BlocksTable summary={summary} />
        </section>
      )}
      {record.trials.length > 0 && (
        <TrialsInWords trials={trials} phases={record.blocks.map(({ criterion }) => criterion?.phases)}>
          <p className="mt-3 text-sm text-soft">
            At most {summary.longestMetRun} met in a row; {counted(record.offers, "offer")} nobody asked for;{" "}
            {counted(record.cutOffAsks, "ask")} cut off before an answer; {counted(record.undone, "tap")} undone, {record.struck} struck
            out.
          </p>
        </TrialsInWords>
      )}
      <div className="mt-9 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-2">
        <WordHistory record={record} />
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-8">
          <Notes storeId={storeId} sessionId={sessionId} notes={notes} />
          <section className="no-print">
            <h2 className="mb-2 text-xl">Take it along</h2>
            <p className="flex flex-wrap gap-x-6 gap-y-2">
              {["trials.csv", "sessions.csv", "events.csv"].map((name) => (
                <a key={name} href={file(name)} download={name} className="link">
                  {name}
                </a>
              ))}
            </p>
            <p className="mt-2 text-sm text-soft">
              <code>npm run -s analyse -- trials.csv --sessions sessions.csv</code> gives the same numbers.
            </p>
          </section>
        </div>
      </div>
      <PutRight key={firstTrial} record={right} facts={{ ...putRight, corrections }} first={firstTrial} />
    </>
  );
}
