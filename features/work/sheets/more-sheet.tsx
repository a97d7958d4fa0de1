"use client";

import { ArrowLeftRight, Coffee, Flag, Hand, Keyboard, Layers, ListOrdered, LogOut } from "lucide-react";
import type { RecorderState } from "../use-recorder";
import { BreathTaps } from "./breath-taps";

const big =
  "flex min-h-[72px] flex-col items-center justify-center gap-1 rounded-lg border-[2.5px] border-ink bg-paper px-1 font-head font-semibold active:bg-tarn-wash";

/** What is not needed every minute: break, block, ladder, touch, breathing, keys, finish. */
export function MoreSheet({ state }: { state: RecorderState }) {
  const { act, setSheet, start } = state;
  const close = () => setSheet(null);
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
        {!start.battery && (
          <button type="button" className={big} onClick={() => setSheet("ladder")}>
            <Layers size={22} aria-hidden="true" />
            ladder
          </button>
        )}
        {!start.battery && (
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
      <section>
        <h3 className="mb-1 font-semibold">Breathing</h3>
        <BreathTaps
          onRate={(taps) => {
            act.breath(taps);
            close();
          }}
        />
      </section>
    </div>
  );
}
