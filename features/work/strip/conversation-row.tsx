"use client";

import { useMemo } from "react";
import type { PinnedSign } from "@/core/ladder";
import { chip } from "@/ui/chip";
import { useActs, useLog, useStart } from "../state";

/** The signs in sight: those of the horse and of the ladder, each once; the latest three that were used stand first. */
export function signsInSight(
  pinned: readonly PinnedSign[],
  used: readonly { readonly name: string; readonly class: string }[],
): readonly PinnedSign[] {
  const all = pinned.filter((sign, i) => pinned.findIndex((one) => one.name === sign.name && one.class === sign.class) === i);
  const latest: PinnedSign[] = [];
  for (let i = used.length - 1; i >= 0 && latest.length < 3; i--) {
    const sign = all.find((one) => one.name === used[i]?.name && one.class === used[i]?.class);
    if (sign !== undefined && !latest.includes(sign)) latest.push(sign);
  }
  return [...latest, ...all.filter((sign) => !latest.includes(sign))];
}

const TONE = {
  ease: "border-sage! text-sage",
  tension: "border-brick! text-brick",
  danger: "border-brick! bg-brick! text-on-tarn",
  pain: "border-brick! bg-brick! text-on-tarn",
  count: "",
} as const;

/** Signs by name and the handler's own acts, one tap each. */
export function ConversationRow() {
  const act = useActs();
  const { record } = useLog();
  const {
    part: { plan },
    today: { pinned },
  } = useStart();
  const { pinned: own = [], acts = [] } = plan.conversation ?? {};
  const used = useMemo(() => record.facts.flatMap((fact) => (fact.type === "signal" ? [fact.payload] : [])), [record]);
  const signs = signsInSight([...own, ...pinned], used);
  const times = (name: string) => used.filter((sign) => sign.name === name).length;
  const done = (name: string) =>
    record.facts.reduce((sum, fact) => (fact.type === "handler" && fact.payload.act === name ? sum + (fact.payload.n ?? 1) : sum), 0);
  return (
    <fieldset className="flex min-w-0 flex-wrap gap-1.5" aria-label="Signs and what you do">
      {acts.map((name) => (
        <button key={name} type="button" className={`${chip(false)} border-dashed!`} onClick={() => act.handlerAct(name)}>
          {name} {done(name) > 0 && <span className="figures">{done(name)}</span>}
        </button>
      ))}
      {signs.map((sign) => (
        <button
          key={`${sign.class} ${sign.name}`}
          type="button"
          className={`${chip(false)} ${TONE[sign.class]}`}
          onClick={() => act.sign(sign)}
        >
          {sign.name} {times(sign.name) > 0 && <span className="figures">{times(sign.name)}</span>}
        </button>
      ))}
    </fieldset>
  );
}
