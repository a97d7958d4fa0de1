"use client";

import { ArrowLeftRight, Coffee, Flag, Hand, Keyboard, Layers, Link2, ListOrdered, LogOut, MessagesSquare, Scale } from "lucide-react";
import { useState } from "react";
import { pouchOf } from "@/core/coach";
import { dueTry } from "@/core/experiment/due";
import { piecesUsed } from "@/core/record";
import { useActs, useLog, useScreen, useStart } from "../state";
import { BreathTaps } from "./breath-taps";
import { HandsPanel } from "./hands-panel";

const big =
  "flex min-h-[72px] flex-col items-center justify-center gap-1 rounded-lg border-[2.5px] border-ink bg-paper px-1 font-head font-semibold active:bg-tarn-wash";

/** What is not needed every minute: break, block, ladder, touch, breathing, keys, finish. */
export function MoreSheet() {
  const act = useActs();
  const { setSheet } = useScreen();
  const start = useStart();
  const session = useLog();
  const close = () => setSheet(null);
  const pouch = pouchOf(session.record);
  const used = piecesUsed(session.record);
  const [pieces, setPieces] = useState("");
  const due = start.today.tries.flatMap((one) => dueTry(one, session.record) ?? []);
  const filled = pieces.trim() === "" ? Number.NaN : Number(pieces);
  return (
    <div className="grid gap-4">
      <div className="grid grid-cols-3 gap-2">
        <button
          type="button"
          className={big}
          onClick={() => {
            close();
            act.takeBreak();
          }}
        >
          <Coffee size={22} aria-hidden="true" />
          break
        </button>
        <button type="button" className={big} onClick={() => setSheet("block")}>
          <ListOrdered size={22} aria-hidden="true" />
          block
        </button>
        {!start.session.battery && (
          <button type="button" className={big} onClick={() => setSheet("ladder")}>
            <Layers size={22} aria-hidden="true" />
            ladder
          </button>
        )}
        {!start.session.battery && (
          <button type="button" className={big} onClick={() => setSheet("touch")}>
            <Hand size={22} aria-hidden="true" />
            touch
          </button>
        )}
        <button
          type="button"
          className={big}
          onClick={() => {
            close();
            act.away();
          }}
        >
          <LogOut size={22} aria-hidden="true" />
          leaves, is back
        </button>
        <button type="button" className={big} onClick={() => setSheet("keys")}>
          <Keyboard size={22} aria-hidden="true" />
          keys, sounds
        </button>
        {!start.session.battery && (
          <button type="button" className={big} onClick={() => setSheet("between")}>
            <MessagesSquare size={22} aria-hidden="true" />
            between asks
          </button>
        )}
        {due.map((one) => (
          <button
            key={one.of.id}
            type="button"
            className={big}
            onClick={() => {
              close();
              act.tryBoth(one);
            }}
          >
            <Scale size={22} aria-hidden="true" />
            <span className="text-center leading-tight">
              try both
              <span className="block font-sans text-[0.8rem] font-normal">
                {one.tries.n} of {one.of.arms.length}: {one.way}
              </span>
            </span>
          </button>
        ))}
        {start.today.chains.length > 0 && (
          <button type="button" className={big} onClick={() => setSheet("run")}>
            <Link2 size={22} aria-hidden="true" />
            run the whole
          </button>
        )}
        <button
          type="button"
          className={big}
          onClick={() => {
            close();
            act.side();
          }}
        >
          <ArrowLeftRight size={22} aria-hidden="true" />
          other side
        </button>
        <button type="button" className={`${big} col-span-2`} onClick={() => setSheet("finish")}>
          <Flag size={22} aria-hidden="true" />
          finish
        </button>
      </div>
      {pouch !== null && (
        <section className="flex flex-wrap items-end gap-2">
          <label className="text-sm font-semibold">
            Pouch, {Math.max(0, pouch - used)} left; filled up to
            <input
              inputMode="numeric"
              value={pieces}
              onChange={(event) => setPieces(event.target.value)}
              className="field-box figures mt-1 w-28 font-normal"
            />
          </label>
          <button
            type="button"
            className="act-quiet min-h-12"
            disabled={!(Number.isInteger(filled) && filled >= 1 && filled <= 1000)}
            onClick={() => {
              act.fillPouch(filled);
              close();
            }}
          >
            Fill it
          </button>
        </section>
      )}
      <section>
        <h3 className="mb-1 font-semibold">Breathing</h3>
        <BreathTaps
          onRate={(taps) => {
            act.breath(taps);
            close();
          }}
        />
      </section>
      <HandsPanel />
    </div>
  );
}
