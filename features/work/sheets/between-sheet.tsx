"use client";

import { useState } from "react";
import { PART_WORDS, PARTS, type Part } from "@/core/events/parts";
import { SIGNS } from "@/core/know";
import { HANDLER_ACTS, type PinnedSign } from "@/core/ladder";
import { handlerNow } from "@/core/record";
import { chip } from "@/ui/chip";
import { send } from "@/ui/form";
import { onAdvice } from "@/ui/form/on-word";
import { useActs, useLog, useScreen, useStart } from "../state";

/** A sign of the yard's own, named in the pen: logged at once, and kept for next time where the server answers. */
function OwnSign({ onSign }: { onSign: (sign: PinnedSign) => void }) {
  const [name, setName] = useState("");
  const add = () => {
    const sign: PinnedSign = { name: name.trim(), class: "count" };
    if (sign.name === "") return;
    // It stands in the log either way.
    void send("POST", "/api/signs", sign);
    onSign(sign);
    setName("");
  };
  return (
    <form
      className="flex w-full gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <input
        aria-label="A sign in your own words"
        placeholder="a sign in your own words"
        value={name}
        maxLength={80}
        onChange={(event) => setName(event.target.value)}
        className="field-box grow"
      />
      <button type="submit" className="act-quiet" disabled={name.trim() === ""}>
        Count it
      </button>
    </form>
  );
}

/** Who takes part from here on, and as what. */
function WhoIsThere({ onDone }: { onDone: () => void }) {
  const act = useActs();
  const { record } = useLog();
  const start = useStart();
  const [part, setPart] = useState<Part>("handles");
  const [name, setName] = useState("");
  const handler = handlerNow(record)?.name ?? start.session.handler;
  const takesPart = () => {
    const known = start.yard.people.find((person) => person.name.toLowerCase() === name.trim().toLowerCase());
    act.takesPart({ name: known?.name ?? name.trim(), id: known?.id ?? null }, part);
    onDone();
  };
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-semibold">Who is there{handler === "" ? "" : `: ${handler} handles`}</legend>
      <div className="flex flex-wrap gap-2">
        <select aria-label="Part" value={part} onChange={onAdvice(PARTS, setPart)} className="field-box w-auto!">
          {PARTS.map((one) => (
            <option key={one} value={one}>
              {PART_WORDS[one]}
            </option>
          ))}
        </select>
        <input
          aria-label="Who"
          list="people"
          placeholder="name"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          className="field-box w-auto! min-w-0 grow"
        />
        <datalist id="people">
          {start.yard.people.map((person) => (
            <option key={person.id} value={person.name} />
          ))}
        </datalist>
        <button type="button" className="act-quiet" disabled={name.trim() === ""} onClick={takesPart}>
          From here on
        </button>
      </div>
      <p className="text-sm text-soft">Who handles is whose evidence it is, from the next ask on.</p>
    </fieldset>
  );
}

/** What happens between the asks, for ladders that have no pads for it: two taps away, and no more in the way. */
export function BetweenSheet() {
  const act = useActs();
  const { record } = useLog();
  const { setSheet } = useScreen();
  const start = useStart();
  const close = () => setSheet(null);
  const then = (press: () => void) => () => {
    press();
    close();
  };
  const open = record.timeLine.wrongs.at(-1)?.endMs === null;
  const on = (what: "looks" | "settles") => record.timeLine.ownTimes.some((span) => span.what === what && span.endMs === null);
  const own = start.yard.ownSigns.filter((sign) => !SIGNS[sign.class].includes(sign.name));
  const counts: PinnedSign[] = [...SIGNS.count.map((one) => ({ name: one, class: "count" as const })), ...own];
  return (
    <div className="grid gap-4">
      <fieldset className="flex flex-wrap gap-1.5">
        <legend className="mb-1 font-semibold">The horse</legend>
        <button
          type="button"
          aria-pressed={open}
          className={chip(open)}
          onClick={then(() => {
            act.wrong(true);
            act.wrong(false);
          })}
        >
          {open ? "wrong choice over" : "chose wrong"}
        </button>
        <button type="button" aria-pressed={on("looks")} className={chip(on("looks"))} onClick={then(() => act.ownTime("looks"))}>
          {on("looks") ? "has looked" : "looks by its own will"}
        </button>
        <button type="button" aria-pressed={on("settles")} className={chip(on("settles"))} onClick={then(() => act.ownTime("settles"))}>
          {on("settles") ? "has settled" : "waiting until it settles"}
        </button>
        <button type="button" className={chip(false)} onClick={then(() => act.retreat(null))}>
          you back off, as its reward
        </button>
      </fieldset>
      <fieldset className="flex flex-wrap gap-1.5">
        <legend className="mb-1 font-semibold">Counted</legend>
        {counts.map((sign) => (
          <button key={`${sign.class} ${sign.name}`} type="button" className={chip(false)} onClick={then(() => act.sign(sign))}>
            {sign.name}
          </button>
        ))}
        <OwnSign
          onSign={(sign) => {
            act.sign(sign);
            close();
          }}
        />
      </fieldset>
      <fieldset className="flex flex-wrap gap-1.5">
        <legend className="mb-1 font-semibold">You</legend>
        {HANDLER_ACTS.map((one) => (
          <button key={one} type="button" className={chip(false)} onClick={() => act.handlerAct(one)}>
            {one}
          </button>
        ))}
      </fieldset>
      <WhoIsThere onDone={close} />
    </div>
  );
}
