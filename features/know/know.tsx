import Link from "next/link";
import type { ReactNode } from "react";
import { type SidePicture, toldShare } from "@/core/compare";
import type { ShareSums } from "@/core/evidence";
import { type Beginning, proposeTouch, type ReliefMap, stateOfGrade, TOUCH_ZONES, type Touch, TouchMap } from "@/core/know";
import type { PlaceItem, PlaceOutline } from "@/core/place";
import { centimetresToHands, type UnitSystem } from "@/core/units";
import { counted, SIDE_WORDS } from "@/core/words";
import { Day } from "@/ui/day";
import { HorseMap, mapZones } from "@/ui/horse-map";
import { Whisker } from "@/ui/measure";
import { massWords } from "@/ui/units/words";
import { ReliefPlan } from "./relief-view";

/** The horse as Know shows it. */
export interface KnownHorse {
  readonly id: string;
  readonly name: string;
  readonly apart: string;
  readonly sex: string | null;
  readonly kind: string;
  readonly height_cm: number | null;
  readonly mass_kg: number | null;
  readonly history: string;
  readonly triggers: string;
  readonly preferred_reinforcers: string;
  readonly photoMs: number | null;
  readonly away: string | null;
}

export interface KnownLadder {
  readonly id: string;
  readonly name: string;
  readonly rung: number;
  readonly rungs: number;
  readonly headline: string;
  readonly barred: boolean;
  readonly sides: readonly { readonly side: "L" | "R"; readonly share: ShareSums }[];
}

export interface KnowProps {
  readonly horse: KnownHorse;
  readonly units: UnitSystem;
  readonly age: { readonly words: string; readonly born: string; readonly caution: string | null } | null;
  readonly limits: readonly string[];
  readonly sides: SidePicture;
  readonly sidesDays: number;
  readonly touches: readonly Touch[];
  readonly offLimits: readonly string[];
  readonly place: {
    readonly id: string;
    readonly name: string;
    readonly outline: PlaceOutline | null;
    readonly items: readonly PlaceItem[];
    readonly relief: ReliefMap;
  } | null;
  readonly look: {
    readonly startedMs: number;
    readonly partial: boolean;
    readonly begin: Beginning | null;
    readonly ready: readonly string[];
  } | null;
  readonly connection: { readonly sentence: string; readonly teachNext: string } | null;
  readonly breathing: string | null;
  readonly ladders: readonly KnownLadder[];
}

/** One of the four things to know today: a headline, its reason, a small drawing. */
function Column({
  href,
  term,
  headline,
  alarm = false,
  children,
}: {
  href: string;
  term: string;
  headline: string;
  alarm?: boolean;
  children: ReactNode;
}) {
  return (
    <section className="min-w-0 border-t-2 border-ink pt-2.5">
      <h2 className="font-sans text-sm font-normal">
        <Link href={href} className="text-soft underline decoration-1 underline-offset-4">
          {term}
        </Link>
      </h2>
      <p className={`font-head text-xl leading-tight font-bold ${alarm ? "text-brick" : ""}`}>{headline}</p>
      <div className="mt-1.5 text-[0.95rem] leading-snug">{children}</div>
    </section>
  );
}

function SideBars({ sides: { left, right } }: { sides: SidePicture }) {
  if (left.of + right.of === 0) return null;
  return (
    <dl className="mt-2 grid grid-cols-[2.6rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1 text-sm">
      {(
        [
          ["left", toldShare(left)],
          ["right", toldShare(right)],
        ] as const
      ).map(([word, { share, interval }]) => (
        <div key={word} className="contents">
          <dt>{word}</dt>
          <dd>
            <Whisker share={share} interval={interval} width={180} />
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** The zones that need care, worst first, in words: "left flank, right girth". */
function zonesToMind(map: TouchMap): string[] {
  return (["L", "R"] as const)
    .flatMap((side) => TOUCH_ZONES.map((zone) => ({ side, zone, grade: map.latest(side, zone)?.grade ?? null })))
    .filter(({ grade }) => stateOfGrade(grade) === "worrying")
    .sort((a, b) => (a.grade ?? 0) - (b.grade ?? 0))
    .map(({ side, zone }) => `${SIDE_WORDS[side]} ${zone}`);
}

function bodyHeadline(touches: readonly Touch[], worrying: readonly string[]): string {
  if (touches.length === 0) return "Not touched over yet";
  if (worrying.length === 0) return "Nowhere worrying";
  return `Mind: ${worrying.slice(0, 2).join(", ")}${worrying.length > 2 ? ` and ${worrying.length - 2} more` : ""}`;
}

function BodyColumn({ horse, touches, offLimits }: Pick<KnowProps, "horse" | "touches" | "offLimits">) {
  const map = new TouchMap(touches);
  const worrying = zonesToMind(map);
  const next = proposeTouch(map, offLimits);
  const headline = bodyHeadline(touches, worrying);
  return (
    <Column href={`/horses/${horse.id}/know/touch`} term="Body" headline={headline} alarm={worrying.length > 0}>
      {next !== null && (
        <p>
          Next: {SIDE_WORDS[next.side]} {next.zone}, {next.tool}.
        </p>
      )}
      {offLimits.length > 0 && <p className="text-brick">Off limits: {offLimits.join(", ")}.</p>}
      <div className="mt-1.5 grid max-w-80 grid-cols-2 gap-2">
        {(["L", "R"] as const).map((side) => (
          <HorseMap
            key={side}
            side={side}
            zones={mapZones(map, side, null, offLimits)}
            label={`${SIDE_WORDS[side]} side of ${horse.name}`}
          />
        ))}
      </div>
    </Column>
  );
}

function PlaceColumn({ horse, place }: Pick<KnowProps, "horse" | "place">) {
  const href = `/horses/${horse.id}/know/places`;
  if (place === null)
    return (
      <Column href={href} term="Places" headline="No zone tapped yet">
        <p>Draw the place, then tap zones at work: it shows where the horse finds it easier.</p>
      </Column>
    );
  const [headline, rest] = place.relief.sentence.split(": ", 2);
  return (
    <Column href={href} term={`Places: ${place.name}`} headline={rest === undefined ? place.relief.sentence : (headline ?? "")}>
      {rest !== undefined && <p>{rest[0]?.toUpperCase() + rest.slice(1)}</p>}
      <div className="mt-1.5 max-w-56">
        <ReliefPlan place={{ ...place, entrance: null }} small />
      </div>
    </Column>
  );
}

function LadderLine({ ladder, horseId }: { ladder: KnownLadder; horseId: string }) {
  return (
    <li className="border-t border-hair py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <Link href={`/horses/${horseId}/shape/${ladder.id}`} className="font-head text-lg font-bold hover:underline">
          {ladder.name}
        </Link>
        <span className={`figures font-semibold ${ladder.barred ? "text-brick" : "text-tarn"}`}>
          {ladder.headline} <span className="font-normal text-soft">of {ladder.rungs}</span>
        </span>
      </div>
      <dl className="mt-1 grid grid-cols-[3.2rem_minmax(0,1fr)] items-center gap-x-4 gap-y-0.5 text-sm sm:grid-cols-[3.2rem_minmax(0,11rem)_1fr]">
        {ladder.sides
          .filter(({ share }) => share.of > 0)
          .map(({ side, share }) => ({ side, told: toldShare(share) }))
          .map(({ side, told }) => (
            <div key={side} className="contents">
              <dt>{SIDE_WORDS[side]}</dt>
              <dd className="min-w-0">
                <Whisker share={told.share} interval={told.interval} />
              </dd>
              <dd className="text-soft max-sm:col-start-2">{told.sentence}</dd>
            </div>
          ))}
      </dl>
    </li>
  );
}

function facts({ horse, age, units }: Pick<KnowProps, "horse" | "age" | "units">): string {
  return [
    horse.apart,
    horse.sex === horse.apart ? null : horse.sex,
    horse.kind,
    horse.height_cm === null ? null : `${horse.height_cm} cm, ${centimetresToHands(horse.height_cm)} hands`,
    horse.mass_kg === null ? null : massWords(horse.mass_kg, units),
    age === null ? null : age.born,
  ]
    .filter((part) => part !== null && part !== "")
    .join(" · ");
}

/** The four things on one glance, for a small screen: each has its reasons below. */
function inShort({ age, limits, sides, touches, place }: KnowProps): { words: string; alarm: boolean }[] {
  const worrying = zonesToMind(new TouchMap(touches));
  const many = limits.length === 0 ? "" : `, ${counted(limits.length, "limit")}`;
  return [
    { words: `${age === null ? "Age not noted" : age.words}${many}`, alarm: limits.length > 0 },
    { words: sides.headline, alarm: false },
    { words: bodyHeadline(touches, worrying), alarm: worrying.length > 0 },
    { words: place === null ? "No zone tapped yet" : (place.relief.sentence.split(": ", 1)[0] ?? ""), alarm: false },
  ];
}

/** Its name and facts, its picture, and whether it is put away. */
function Head(props: KnowProps) {
  const { horse } = props;
  return (
    <>
      <div className="flex items-start justify-between gap-4">
        <div className="flex min-w-0 items-center gap-4">
          {horse.photoMs !== null && (
            // biome-ignore lint/performance/noImgElement: the picture is already small and comes from this machine
            <img
              src={`/api/horses/${horse.id}/photo?${horse.photoMs}`}
              alt=""
              className="size-16 shrink-0 rounded-full border-2 border-ink object-cover"
            />
          )}
          <div className="min-w-0">
            <h1 className="text-[2rem]">{horse.name}</h1>
            <p className="figures text-soft">{facts(props)}</p>
          </div>
        </div>
        <Link href={`/horses/${horse.id}/know/edit`} className="link mt-2 shrink-0">
          Edit
        </Link>
      </div>
      {horse.away !== null && (
        <p className="mt-3 border-l-4 border-ochre pl-4">
          Put away: {horse.away}.{" "}
          <Link href={`/horses/${horse.id}/know/limits`} className="link">
            Bring {horse.name} back
          </Link>
        </p>
      )}
    </>
  );
}

/** The two ways on of a horse of which nothing is known or planned yet. */
function TwoWaysOn({ horseId }: { horseId: string }) {
  return (
    <section aria-label="Two ways on" className="mt-4 grid gap-3 sm:grid-cols-2">
      <Link href={`/horses/${horseId}/know/first-look`} className="act flex-col items-start! py-3! text-left">
        <span className="text-xl">First look</span>
        <span className="font-sans text-sm font-normal">A quarter of an hour shows what it is ready for and where to begin.</span>
      </Link>
      <Link href={`/horses/${horseId}/shape/library`} className="act-quiet flex-col items-start! py-3! text-left">
        <span className="font-head text-xl font-bold">Plan a behaviour</span>
        <span className="text-sm font-normal text-soft">You know what comes next: from the library, or begun empty.</span>
      </Link>
    </section>
  );
}

function AgeColumn({ horse, age, limits }: Pick<KnowProps, "horse" | "age" | "limits">) {
  return (
    <Column
      href={`/horses/${horse.id}/know/limits`}
      term="Age and limits"
      headline={age === null ? "Age not noted" : age.words}
      alarm={limits.length > 0}
    >
      {limits.length === 0 ? (
        <p>Nothing limits the work today.</p>
      ) : (
        <ul className="grid gap-1.5">
          {limits.map((limit) => (
            <li key={limit} className="border-l-4 border-brick pl-2.5">
              {limit}
            </li>
          ))}
        </ul>
      )}
    </Column>
  );
}

/** When it was looked at, what to begin with, what it is ready for. */
function FirstLook({ horse, look }: Pick<KnowProps, "horse" | "look">) {
  return (
    <section>
      <h2 className="text-xl">
        <Link href={`/horses/${horse.id}/know/first-look`} className="hover:underline">
          First look
        </Link>
      </h2>
      {look === null ? (
        <p>
          Not done yet: a quarter of an hour shows what it is ready for and where to begin.{" "}
          <Link href={`/horses/${horse.id}/know/first-look`} className="link">
            Take a first look
          </Link>
        </p>
      ) : (
        <p>
          <Day ms={look.startedMs} />
          {look.partial && ", in part"}.{" "}
          {look.begin === null
            ? "Nothing looked at stands in the way."
            : `Begin with: ${look.begin.name}${look.begin.side === null ? "" : `, ${SIDE_WORDS[look.begin.side]} first`}.`}{" "}
          {look.ready.length > 0 && <span className="text-soft">Ready to try: {look.ready.join(", ")}.</span>}
        </p>
      )}
    </section>
  );
}

function Ladders({ horse, ladders }: Pick<KnowProps, "horse" | "ladders">) {
  return (
    <section>
      <h2 className="mb-1 text-xl">Ladders, side by side</h2>
      {ladders.length === 0 ? (
        <p>
          No ladder yet.{" "}
          <Link href={`/horses/${horse.id}/shape/new`} className="link">
            Plan the first one
          </Link>
          .
        </p>
      ) : (
        <>
          <ul className="border-b border-hair">
            {ladders.map((ladder) => (
              <LadderLine key={ladder.id} ladder={ladder} horseId={horse.id} />
            ))}
          </ul>
          <p className="mt-2 text-sm text-soft">
            Share met in the last 40 work trials on each side, with the 95 % interval. The trials may lie on different rungs.
          </p>
        </>
      )}
    </section>
  );
}

/** What it goes to, what worries it, what it works for, how it breathes at rest, and its history. */
function Beside({ horse, connection, breathing }: Pick<KnowProps, "horse" | "connection" | "breathing">) {
  const more = (term: string, text: string) =>
    text !== "" && (
      <div>
        <dt className="text-sm text-soft">{term}</dt>
        <dd className="whitespace-pre-wrap">{text}</dd>
      </div>
    );
  return (
    <dl className="grid content-start gap-4">
      {connection !== null && (
        <div>
          <dt className="text-sm">
            <Link href={`/horses/${horse.id}/know/connection`} className="text-soft underline decoration-1 underline-offset-4">
              Goes to
            </Link>
          </dt>
          <dd>{connection.sentence}</dd>
          <dd className="text-tarn">{connection.teachNext}</dd>
        </div>
      )}
      {more("What worries it", horse.triggers)}
      {more("What it works for", horse.preferred_reinforcers)}
      {breathing !== null && (
        <div>
          <dt className="text-sm">
            <Link href={`/horses/${horse.id}/know/signs`} className="text-soft underline decoration-1 underline-offset-4">
              At rest
            </Link>
          </dt>
          <dd className="figures">{breathing}</dd>
        </div>
      )}
      <div>
        <dt className="text-sm text-soft">History</dt>
        <dd className="whitespace-pre-wrap">{horse.history === "" ? "Nothing written yet." : horse.history}</dd>
      </div>
    </dl>
  );
}

/** What is known of the horse today: age and limits, side, body, places; below it the look, the company, the history. */
export function Know(props: KnowProps) {
  const { horse, sides, look, ladders } = props;
  return (
    <>
      <Head {...props} />
      {look === null && ladders.length === 0 && horse.away === null && <TwoWaysOn horseId={horse.id} />}
      <ul className="mt-4 grid gap-0.5 border-l-4 border-ink pl-3 font-head text-lg leading-snug font-bold sm:hidden" aria-label="In short">
        {inShort(props).map(({ words, alarm }) => (
          <li key={words} className={alarm ? "text-brick" : ""}>
            {words}
          </li>
        ))}
      </ul>
      <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 sm:grid-cols-2 lg:grid-cols-[minmax(0,0.9fr)_minmax(0,0.85fr)_minmax(0,1.15fr)_minmax(0,1.1fr)]">
        <AgeColumn horse={horse} age={props.age} limits={props.limits} />
        <Column href={`/horses/${horse.id}/know/first-look`} term={`Side, last ${props.sidesDays} days`} headline={sides.headline}>
          <p>{sides.reason}</p>
          <SideBars sides={sides} />
        </Column>
        <BodyColumn horse={horse} touches={props.touches} offLimits={props.offLimits} />
        <PlaceColumn horse={horse} place={props.place} />
      </div>
      <div className="mt-8 grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 lg:grid-cols-[1fr_24rem]">
        <div className="grid content-start gap-7">
          <FirstLook horse={horse} look={look} />
          <Ladders horse={horse} ladders={ladders} />
        </div>
        <Beside horse={horse} connection={props.connection} breathing={props.breathing} />
      </div>
    </>
  );
}
