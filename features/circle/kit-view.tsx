"use client";

import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { FIT_CHECKS, fitSentences, KIT_STAGES, type KitFit, NO_FIT } from "@/core/circle";
import { toLog } from "@/core/events/circle-log";
import type { CircleKit, PlannerStart } from "@/core/start";
import { send, typedNumber } from "@/ui/form";
import { WayLink } from "@/ui/way";

function FitCard({ horseId, kit, today }: { horseId: string; kit: CircleKit; today: string }) {
  const router = useRouter();
  const fit: KitFit = kit.fit ?? NO_FIT;
  const shown = (value: number | null) => (value === null ? "" : String(value));
  const [draft, setDraft] = useState({
    holesLeft: shown(fit.holesLeft),
    holesRight: shown(fit.holesRight),
    strapCentimetres: shown(fit.strapCentimetres),
    slackHands: shown(fit.slackHands),
    nextCheck: fit.nextCheck ?? "",
    note: fit.note,
  });
  const [message, setMessage] = useState<{ readonly text: string; readonly bad: boolean } | null>(null);
  const number = (key: "holesLeft" | "holesRight" | "strapCentimetres" | "slackHands") =>
    draft[key].trim() === "" ? null : (typedNumber(draft[key]) ?? draft[key]);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await send(
      "PUT",
      `/api/horses/${horseId}/fits/${kit.id}`,
      toLog({
        holesLeft: number("holesLeft"),
        holesRight: number("holesRight"),
        strapCentimetres: number("strapCentimetres"),
        slackHands: number("slackHands"),
        nextCheck: draft.nextCheck === "" ? null : draft.nextCheck,
        note: draft.note.trim(),
      }),
    );
    setMessage(sent.ok ? { text: "Saved.", bad: false } : { text: sent.message, bad: true });
    if (sent.ok) router.refresh();
  };
  const field = (key: keyof typeof draft, label: string, type = "text") => (
    <label className="grid text-sm">
      {label}
      <input
        type={type}
        inputMode={type === "text" && key !== "note" ? "decimal" : undefined}
        value={draft[key]}
        className={`field-box mt-0.5 ${key === "note" ? "" : "figures w-28"}`}
        onChange={(event) => setDraft({ ...draft, [key]: event.target.value })}
      />
    </label>
  );
  return (
    <form onSubmit={(event) => void save(event)} noValidate aria-label={`Fit card, ${kit.name}`} className="mt-3 grid gap-3">
      {fitSentences(kit.fit, today).map((sentence) => (
        <p key={sentence} className="font-semibold text-ochre">
          {sentence}
        </p>
      ))}
      <div className="flex flex-wrap gap-3">
        {field("holesLeft", "Holes, left")}
        {field("holesRight", "Holes, right")}
        {field("strapCentimetres", "Strap, cm")}
        {field("slackHands", "Slack, hands’ breadths")}
        {field("nextCheck", "Next check", "date")}
      </div>
      {field("note", "Note")}
      <div className="flex items-center gap-3">
        <button type="submit" className="act-quiet">
          Save the card
        </button>
        <p role={message?.bad === true ? "alert" : "status"} className={message?.bad === true ? "font-semibold text-brick" : "text-sm"}>
          {message?.text}
        </p>
      </div>
    </form>
  );
}

/** Kit that is fitted: the stages it has been through with this horse, and how it sits. */
export function KitView({ start }: { start: PlannerStart }) {
  const fitted = start.kit.filter((kit) => kit.fitted);
  return (
    <>
      <h1 className="text-[2rem]">Kit and fit, {start.horse.name}</h1>
      <p className="mt-2 max-w-prose">
        New kit comes by stages, one a session; a poor one is repeated. First time at a stage: walk alone,{" "}
        {start.settings.circleNewKitMinutes} min at most. Before each use: {FIT_CHECKS.join(", ")}.
      </p>
      {fitted.length === 0 && (
        <p className="mt-4">
          No roller, harness or halter yet.{" "}
          <WayLink href="/kit" className="link">
            Add it under Kit
          </WayLink>
          .
        </p>
      )}
      <ul className="mt-5 grid gap-6 lg:grid-cols-2">
        {fitted.map((kit) => {
          const at = KIT_STAGES.indexOf(kit.place.stage);
          return (
            <li key={kit.id} className="border-t-2 border-hair pt-4">
              <h2 className="text-xl">{kit.name}</h2>
              <ol className="mt-2 flex flex-wrap gap-x-1.5 gap-y-1 text-sm" aria-label="Stages">
                {KIT_STAGES.map((stage, i) => (
                  <li
                    key={stage}
                    aria-current={i === at ? "step" : undefined}
                    className={`rounded border-2 px-2 py-0.5 ${i === at ? "border-ink bg-ink font-semibold text-on-ink" : i < at ? "border-sage" : "border-hair"}`}
                  >
                    {i < at ? "✓ " : ""}
                    {stage}
                  </li>
                ))}
              </ol>
              <p className="mt-1 text-sm">{kit.place.reason}</p>
              <FitCard horseId={start.horse.id} kit={kit} today={start.today} />
            </li>
          );
        })}
      </ul>
      <p className="mt-6 max-w-prose text-sm text-soft">
        Training aids fix the head or the ribs: nothing is buckled tight on the first day, and a professional should fit what is new to you.
      </p>
    </>
  );
}
