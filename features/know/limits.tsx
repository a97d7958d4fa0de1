"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { AnyObjectSchema } from "yup";
import { dayWords } from "@/core/day";
import { TOUCH_ZONES } from "@/core/know";
import { AWAY_KINDS, limbsOf, type RestrictionInput, restrictionSchema } from "@/core/schemas";
import { GAITS_SLOWEST_FIRST, isLegZone, RESTRICTION_FACTS, RESTRICTION_KINDS, type RestrictionKind } from "@/core/welfare";
import { Field, FormEnd, orNothing, savedUnder, send, tied, useSentForm } from "@/ui/form";

/** One restriction as it stands, with whether it holds today. */
export interface ShownRestriction {
  readonly id: string;
  readonly sentence: string;
  /** Whether this version cannot read it: it is written anew or ended, and not gone against. */
  readonly unread: boolean;
  readonly holds: boolean;
  readonly when: string;
  readonly overlaps: boolean;
  /** Why it was ended, or null where it was not. */
  readonly ended: string | null;
  /** Days on which it was gone against, each with the reason. */
  readonly against: readonly { readonly words: string; readonly today: boolean }[];
  readonly input: RestrictionInput;
}

/** Where a restriction's id stands: what the yard's own settings close. */
const YARD = "yard";

const EMPTY: RestrictionInput = {
  kind: "no-circling",
  amount: null,
  detail: "",
  limb: "",
  carries_others: "",
  reason: "",
  given_by: "",
  from_day: null,
  until_day: null,
};
const CHOICES = { gait: GAITS_SLOWEST_FIRST, side: ["left", "right"], "touch-zone": TOUCH_ZONES } as const;

function RestrictionForm({ horseId, id, start, onDone }: { horseId: string; id?: string; start: RestrictionInput; onDone: () => void }) {
  const { register, submit, error, problem, busy, watch, setValue } = useSentForm<RestrictionInput>({
    schema: restrictionSchema as unknown as AnyObjectSchema,
    start,
    target: savedUnder(`/api/horses/${horseId}/restrictions`, id),
    onSaved: onDone,
  });
  const kind = watch("kind") as RestrictionKind;
  const { detail, unit, range } = RESTRICTION_FACTS[kind];
  const zone = String(watch("detail") ?? "");
  const limb = String(watch("limb") ?? "");
  return (
    <form onSubmit={submit} noValidate className="grid max-w-3xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-6">
      <div className="sm:col-span-3">
        <Field id="kind" label="Restriction" error={error("kind")}>
          <select
            {...register("kind", {
              onChange: () => {
                setValue("amount", null);
                setValue("detail", "");
                setValue("limb", "");
                setValue("carries_others", "");
              },
            })}
            {...tied("kind", error("kind"))}
            className="field-box"
          >
            {RESTRICTION_KINDS.map((one) => (
              <option key={one} value={one}>
                {RESTRICTION_FACTS[one].words}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-3">
        {detail === "amount" && (
          <Field
            id="amount"
            label={`At most${unit === "" ? "" : `, ${unit}`}`}
            hint={`From ${range[0]} to ${range[1]}`}
            error={error("amount")}
          >
            <input
              {...register("amount", orNothing)}
              {...tied("amount", error("amount"))}
              inputMode="decimal"
              className="field-box figures"
            />
          </Field>
        )}
        {(detail === "gait" || detail === "side" || detail === "touch-zone") && (
          <Field
            id="detail"
            label={detail === "gait" ? "No faster than" : detail === "side" ? "Only the" : "Where"}
            error={error("detail")}
          >
            <select {...register("detail")} {...tied("detail", error("detail"))} className="field-box">
              <option value="">choose</option>
              {CHOICES[detail].map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </Field>
        )}
      </div>
      {kind === "touch-off" && zone !== "" && (
        <div className="sm:col-span-3">
          <Field id="limb" label={isLegZone(zone) ? "Which leg" : "Which side"} error={error("limb")}>
            <select {...register("limb")} {...tied("limb", error("limb"))} className="field-box">
              <option value="">{isLegZone(zone) ? "every leg" : "both sides"}</option>
              {limbsOf(zone).map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </Field>
        </div>
      )}
      {kind === "touch-off" && isLegZone(zone) && limb !== "" && (
        <div className="sm:col-span-3">
          <Field
            id="carries_others"
            label="May it carry that leg while the others are handled?"
            hint="Not said closes all four"
            error={error("carries_others")}
          >
            <select {...register("carries_others")} {...tied("carries_others", error("carries_others"))} className="field-box">
              <option value="">not said</option>
              <option value="yes">yes</option>
              <option value="no">no</option>
            </select>
          </Field>
        </div>
      )}
      <div className="sm:col-span-6">
        <Field id="reason" label={kind === "other" ? "What the advice is" : "Why"} error={error("reason")}>
          <input {...register("reason")} {...tied("reason", error("reason"))} className="field-box" autoComplete="off" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="given_by" label="Advice of" hint="For example the veterinarian" error={error("given_by")}>
          <input {...register("given_by")} {...tied("given_by", error("given_by"))} className="field-box" autoComplete="off" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="from_day" label="From" hint="Empty: already" error={error("from_day")}>
          <input type="date" {...register("from_day", orNothing)} {...tied("from_day", error("from_day"))} className="field-box figures" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="until_day" label="Until, that day too" hint="Empty: until it is ended" error={error("until_day")}>
          <input
            type="date"
            {...register("until_day", orNothing)}
            {...tied("until_day", error("until_day"))}
            className="field-box figures"
          />
        </Field>
      </div>
      <FormEnd label={id === undefined ? "Add the restriction" : "Save"} busy={busy} problem={problem} onLeave={onDone} />
    </form>
  );
}

/** A reason that stays in the list: why a restriction ends, or why it is gone against today. */
function ReasonForm({ label, act, onGive, onLeave }: { label: string; act: string; onGive: (why: string) => void; onLeave: () => void }) {
  const [why, setWhy] = useState("");
  return (
    <form
      className="flex w-full flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onGive(why);
      }}
    >
      <label className="grow font-semibold">
        {label}
        <input
          value={why}
          maxLength={500}
          required
          onChange={(event) => setWhy(event.target.value)}
          className="field-box mt-1 font-normal"
        />
      </label>
      <button type="submit" className="act">
        {act}
      </button>
      <button type="button" className="act-quiet" onClick={onLeave}>
        Leave it
      </button>
    </form>
  );
}

/** Puts the horse out of work for a while, or brings it back. */
function Away({
  horseId,
  name,
  away,
  today,
}: {
  horseId: string;
  name: string;
  away: { kind: string; since: string | null; note: string } | null;
  today: string;
}) {
  const router = useRouter();
  const [kind, setKind] = useState<string>(AWAY_KINDS[0]);
  const [since, setSince] = useState(today);
  const [note, setNote] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const done = (sent: { ok: boolean; message?: string }) => {
    setProblem(sent.ok ? null : (sent.message ?? null));
    if (sent.ok) router.refresh();
  };
  return (
    <section className="mt-10 border-t-2 border-hair pt-5">
      <h2 className="text-xl">In work, or put away</h2>
      {away === null ? (
        <>
          <p className="mt-1 max-w-prose text-soft">
            A horse that is turned out to grow, resting or sold leaves the yard's list; its history stays.
          </p>
          <div className="mt-3 flex flex-wrap items-end gap-3">
            <label className="font-semibold">
              Why
              <select value={kind} onChange={(event) => setKind(event.target.value)} className="field-box mt-1 font-normal">
                {AWAY_KINDS.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </select>
            </label>
            <label className="font-semibold">
              Since
              <input
                type="date"
                value={since}
                onChange={(event) => setSince(event.target.value)}
                className="field-box figures mt-1 font-normal"
              />
            </label>
            <label className="min-w-48 grow font-semibold">
              Note
              <input
                value={note}
                maxLength={500}
                onChange={(event) => setNote(event.target.value)}
                className="field-box mt-1 font-normal"
              />
            </label>
            <button
              type="button"
              className="act-quiet"
              onClick={async () =>
                done(await send("PUT", `/api/horses/${horseId}/away`, { kind, since: since === "" ? null : since, note }))
              }
            >
              Put {name} away
            </button>
          </div>
        </>
      ) : (
        <div className="mt-2 flex flex-wrap items-center gap-4">
          <p>
            <strong>{away.kind}</strong>
            {away.since !== null && ` since ${dayWords(away.since)}`}
            {away.note !== "" && `. ${away.note}`}
          </p>
          <button type="button" className="act" onClick={async () => done(await send("DELETE", `/api/horses/${horseId}/away`))}>
            Bring {name} back
          </button>
        </div>
      )}
      {problem !== null && (
        <p role="alert" className="mt-2 font-semibold text-brick">
          {problem}
        </p>
      )}
    </section>
  );
}

/** Everything that limits the work with this horse: advice with its dates, age, being put away. */
export function Limits({
  horse,
  today,
  restrictions,
  age,
  yard,
  yardAgainst,
  away,
}: {
  horse: { id: string; name: string };
  today: string;
  restrictions: readonly ShownRestriction[];
  age: { words: string; caution: string | null } | null;
  /** What the yard's own settings close for a young horse, and whether that was gone against today. */
  yard: readonly { sentence: string; today: boolean }[];
  yardAgainst: readonly string[];
  away: { kind: string; since: string | null; note: string } | null;
}) {
  const router = useRouter();
  const [editing, setEditing] = useState<string | null>(null);
  const [ending, setEnding] = useState<string | null>(null);
  const [against, setAgainst] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const end = async (id: string, ended: boolean, why: string) => {
    const sent = await send("POST", `/api/horses/${horse.id}/restrictions/${id}`, { ended, why });
    setProblem(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    setEnding(null);
    router.refresh();
  };
  const goAgainst = async (id: string, reason: string) => {
    const sent = await send("POST", `/api/horses/${horse.id}/restrictions/${id}/against`, { reason });
    setProblem(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    setAgainst(null);
    router.refresh();
  };
  const takeBack = async (id: string) => {
    const sent = await send("DELETE", `/api/horses/${horse.id}/restrictions/${id}/against`);
    setProblem(sent.ok ? null : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <>
      <h1 className="text-[2rem]">Limits and dates</h1>
      <p className="mt-1 text-lg">
        {age === null
          ? "Its age is not noted, so no age caution can be given."
          : `${age.words} old. ${age.caution ?? "No age caution from five years on."}`}
      </p>
      <ul className="mt-5 border-b-2 border-hair">
        {yard.map(({ sentence, today: gone }, i) => (
          <li key={sentence} className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 border-t-2 border-hair py-3.5">
            <p className={gone ? "text-lg text-soft" : "text-lg font-semibold text-brick"}>
              {sentence}
              {yardAgainst.map((words) => (
                <span key={words} className="block text-sm font-normal text-ink">
                  {words}
                </span>
              ))}
            </p>
            {i === 0 && !gone && (
              <button type="button" className="link no-print" aria-expanded={against === YARD} onClick={() => setAgainst(YARD)}>
                Go against it today
              </button>
            )}
            {i === 0 && gone && (
              <button type="button" className="link no-print" onClick={() => void takeBack(YARD)}>
                Hold to it today after all
              </button>
            )}
            {i === 0 && against === YARD && (
              <ReasonForm
                label="Why, for today"
                act="Go against it"
                onGive={(why) => void goAgainst(YARD, why)}
                onLeave={() => setAgainst(null)}
              />
            )}
          </li>
        ))}
        {restrictions.map(({ id, sentence, unread, holds, when, overlaps, ended, against: days, input }) => (
          <li key={id} className="border-t-2 border-hair py-3.5">
            {editing === id ? (
              <RestrictionForm horseId={horse.id} id={id} start={input} onDone={() => setEditing(null)} />
            ) : (
              <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
                <p className={holds ? "text-lg font-semibold text-brick" : "text-lg text-soft"}>
                  {sentence}
                  <span className="ml-3 text-sm font-normal text-soft">{when}</span>
                  {ended !== null && <span className="block text-sm font-normal">Ended: {ended}</span>}
                  {days.map(({ words }) => (
                    <span key={words} className="block text-sm font-normal text-ink">
                      {words}
                    </span>
                  ))}
                  {overlaps && (
                    <span className="block text-sm font-normal text-ink">Overlaps another of its kind: the stricter holds.</span>
                  )}
                </p>
                <p className="no-print flex gap-5">
                  {ended === null ? (
                    <>
                      {holds && !unread && !days.some((one) => one.today) && (
                        <button type="button" className="link" aria-expanded={against === id} onClick={() => setAgainst(id)}>
                          Go against it today
                        </button>
                      )}
                      {holds && days.some((one) => one.today) && (
                        <button type="button" className="link" onClick={() => void takeBack(id)}>
                          Hold to it today after all
                        </button>
                      )}
                      <button type="button" className="link" onClick={() => setEditing(id)}>
                        Change
                      </button>
                      <button type="button" className="link" aria-expanded={ending === id} onClick={() => setEnding(id)}>
                        End it
                      </button>
                    </>
                  ) : (
                    <button type="button" className="link" onClick={() => void end(id, false, "")}>
                      Holds again
                    </button>
                  )}
                </p>
                {ending === id && (
                  <ReasonForm label="Why it ends" act="End it" onGive={(why) => void end(id, true, why)} onLeave={() => setEnding(null)} />
                )}
                {against === id && (
                  <ReasonForm
                    label={`Why, for today${input.given_by === "" ? "" : `; it is advice of ${input.given_by}, ask first`}`}
                    act="Go against it"
                    onGive={(why) => void goAgainst(id, why)}
                    onLeave={() => setAgainst(null)}
                  />
                )}
              </div>
            )}
          </li>
        ))}
        {restrictions.length + yard.length === 0 && <li className="border-t-2 border-hair py-3.5 text-soft">No restriction.</li>}
      </ul>
      {problem !== null && (
        <p role="alert" className="mt-2 font-semibold text-brick">
          {problem}
        </p>
      )}
      <div className="mt-5">
        {editing === "new" ? (
          <RestrictionForm horseId={horse.id} start={EMPTY} onDone={() => setEditing(null)} />
        ) : (
          <button type="button" className="act-quiet" onClick={() => setEditing("new")}>
            Add a restriction
          </button>
        )}
      </div>
      <p className="mt-4 max-w-prose text-sm text-soft">
        A restriction switches off or caps what it names, in the plan, at work and ahead, with its reason beside it. It is the advice of
        whoever gave it: ask them before you change it.
      </p>
      <Away horseId={horse.id} name={horse.name} away={away} today={today} />
    </>
  );
}
