"use client";

import { useState } from "react";
import type { HorsePack, Named, Unfinished, YardFacts } from "@/core/pack";
import type { HandlerChoices } from "@/core/start";
import type { OpenCoolDown } from "@/core/today";
import { Problem, TextBox } from "@/ui/form";
import { BeforeStart } from "./before-start";
import { ChooseOrName, firstChosen } from "./choose-or-name";
import { KitInHand } from "./kit-in-hand";
import { FREE, LadderRows } from "./ladder-rows";
import { useStartSession } from "./use-start-session";

/** With this one first. */
const firstOf = (list: readonly Named[], id: string | null) => [...list].sort((a, b) => Number(b.id === id) - Number(a.id === id));

/** Begins a session: which ladder, who, where. Everything is filled in with the likeliest choice. */
export function StartSession({
  horse,
  byHandler,
  yard,
  last,
  open,
  cooling = [],
  storeId,
  unread = false,
}: {
  horse: { id: string; name: string; away: string | null };
  /** What may be begun, by who handles: evidence belongs to the horse with its handler. */
  byHandler: readonly HandlerChoices[];
  yard: Pick<YardFacts, "people" | "places" | "kit">;
  /** Who worked the horse last, where and with what: taken again unless it is changed. */
  last: HorsePack["last"];
  /** Sessions begun and not finished, newest first. */
  open: readonly Unfinished[];
  /** Cool-downs that were begun and not ended. */
  cooling?: readonly OpenCoolDown[];
  storeId: string;
  /** Whether this device could not read the horse: its ladders are not missing, they are not seen. */
  unread?: boolean;
}) {
  const { kit } = yard;
  const people = firstOf(yard.people, last.person);
  const places = firstOf(yard.places, last.place);
  const [person, setPerson] = useState(firstChosen(people));
  const [place, setPlace] = useState(firstChosen(places));
  const newcomer = byHandler.at(-1) as HandlerChoices;
  const { choices } = byHandler.find(({ handler }) => handler === person.id) ?? newcomer;
  const { ladders, limits, doNext, noWork } = choices;
  const [ladder, setLadder] = useState(ladders.find(({ next }) => next.barred === null)?.id ?? FREE);
  const [taken, setTaken] = useState<ReadonlySet<string>>(() => new Set(last.kit.filter((id) => kit.some((one) => one.id === id))));
  const chosen = ladders.find(({ id }) => id === ladder);
  const { begin, problem, busy, running, capped, against, setAgainst } = useStartSession(
    horse.id,
    storeId,
    open.some((one) => one.running),
  );
  const turn = (id: string) =>
    setTaken((all) => {
      const next = new Set(all);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const closedBy = [horse.away === null ? null : `Put away: ${horse.away}.`, noWork].filter((reason) => reason !== null);

  return (
    <>
      <h1 className="text-[2rem]">Work {horse.name}</h1>
      <BeforeStart horse={horse} storeId={storeId} doNext={doNext} limits={limits} open={open} cooling={cooling} />
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-16 gap-y-7 lg:grid-cols-[1fr_22rem]">
        <LadderRows horseId={horse.id} ladders={ladders} chosen={ladder} noWork={noWork} unread={unread} onChosen={setLadder} />
        <div className="grid content-start gap-4">
          <ChooseOrName id="handler" label="Handler" list={people} chosen={person} onChosen={setPerson} />
          <ChooseOrName id="place" label="Place" list={places} chosen={place} onChosen={setPlace} />
          <KitInHand kit={kit} taken={taken} use={chosen?.kitUse ?? null} onTurn={turn} />
          <button
            type="button"
            className={`${running ? "act-quiet" : "act text-xl"} min-h-16`}
            onClick={() =>
              void begin({ ladder: chosen === undefined ? null : { id: chosen.id, rung: chosen.next.rung }, person, place, kit: taken })
            }
            disabled={busy || closedBy.length > 0}
          >
            {running ? "Begin another beside the running one" : "Open the recorder"}
          </button>
          {closedBy.map((reason) => (
            <p key={reason} className="border-l-4 border-brick pl-2 text-sm">
              <strong>Closed.</strong> {reason}
            </p>
          ))}
          <Problem>{problem}</Problem>
          {capped && <TextBox label="All the same, because" value={against} maxLength={80} onTyped={setAgainst} />}
          <p className="text-sm text-soft">
            Helmet, gloves, boots. A line folded in the hand, never wrapped. Horse sound and fed, pen shut. With a horse that has hurt
            someone, work beside a qualified professional.
          </p>
        </div>
      </div>
    </>
  );
}
