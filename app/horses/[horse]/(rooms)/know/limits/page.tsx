import type { Metadata } from "next";
import { dayIn, dayWords } from "@/core/day";
import type { RestrictionInput } from "@/core/schemas";
import {
  ageWords,
  dateWords,
  dueWords,
  type GoneAgainst,
  goneAgainstOn,
  holdsOn,
  type Restriction,
  restrictionSentence,
  restrictionsOverlap,
  UNREAD,
  yardRestrictions,
} from "@/core/welfare";
import { Dates } from "@/features/know/dates";
import { KnowNav } from "@/features/know/know-nav";
import { Limits } from "@/features/know/limits";
import { asHorseDate, asRestriction, getHorse, getSettings, goneAgainst, listDates } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Limits" };

function whenWords({ from, until }: Restriction, today: string): string {
  if (until !== null && until < today) return `ended on ${dayWords(until)}`;
  if (from !== null && from > today) return `from ${dayWords(from)}${until === null ? "" : ` to ${dayWords(until)}`}`;
  return until === null ? "with no end set" : "";
}

const UNWRITTEN: RestrictionInput = {
  kind: "other",
  amount: null,
  detail: "",
  limb: "",
  carries_others: "",
  reason: "",
  given_by: "",
  from_day: null,
  until_day: null,
};

const againstWords = ({ day, reason, taken_back_ms }: GoneAgainst) =>
  `Gone against on ${dayWords(day)}: ${reason}${taken_back_ms === undefined ? "" : ` (taken back)`}`;

export default async function LimitsPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const { rows, day, age, caution } = await horseCare(store, horse);
  const settings = await getSettings(store);
  const all = rows.map((row) => ({ row, restriction: asRestriction(row) }));
  return (
    <>
      <KnowNav horseId={horse.id} here="limits" />
      <Limits
        horse={{ id: horse.id, name: horse.name }}
        today={day}
        age={age === null ? null : { words: ageWords(age), caution: caution?.sentence ?? null }}
        yard={yardRestrictions(age, settings, goneAgainst(horse)).map((restriction) => ({
          sentence: restrictionSentence(restriction),
          today: goneAgainstOn(restriction, day) !== null,
        }))}
        yardAgainst={goneAgainst(horse).map(againstWords)}
        away={horse.away === null ? null : { kind: horse.away, since: horse.away_since, note: horse.away_note }}
        restrictions={all.map(({ row, restriction }) => ({
          id: row.id,
          sentence: restrictionSentence(restriction),
          unread: restriction.kind === UNREAD,
          holds: row.ended_ms == null && holdsOn(restriction, day),
          against: (restriction.goneAgainst ?? []).map((one) => ({
            words: againstWords(one),
            today: one.day === day && one.taken_back_ms === undefined,
          })),
          ended: row.ended_ms == null ? null : (row.ended_why ?? ""),
          when: row.ended_ms == null ? whenWords(restriction, day) : "",
          overlaps:
            row.ended_ms == null &&
            all.some(
              (other) => other.row.id !== row.id && other.row.ended_ms == null && restrictionsOverlap(other.restriction, restriction),
            ),
          // What cannot be read is written anew from what it says.
          input: (restriction.kind === UNREAD
            ? { ...UNWRITTEN, reason: restriction.reason }
            : {
                kind: restriction.kind,
                amount: row.amount,
                detail: row.detail,
                limb: (row.limb ?? "") as RestrictionInput["limb"],
                carries_others: (row.carries_others ?? "") as RestrictionInput["carries_others"],
                reason: row.reason,
                given_by: row.given_by,
                from_day: row.from_day,
                until_day: row.until_day,
              }) satisfies RestrictionInput,
        }))}
      />
      <Dates
        horseId={horse.id}
        today={day}
        dates={(await listDates(store, horse.id)).map((row) => {
          const date = asHorseDate(row);
          return {
            id: row.id,
            words: dateWords(date),
            due: row.done_ms === null ? dueWords(date, day) : null,
            done: row.done_ms === null ? null : dayWords(dayIn(row.done_ms, store.timeZone)),
          };
        })}
      />
    </>
  );
}
