"use client";

import {
  ArrowLeftRight,
  Coffee,
  Flag,
  Hand,
  Keyboard,
  Layers,
  LayoutGrid,
  Link2,
  ListOrdered,
  LogOut,
  MessagesSquare,
  Scale,
} from "lucide-react";
import { type ReactNode, useState } from "react";
import { pouchOf } from "@/core/coach";
import { dueTry } from "@/core/experiment/due";
import { piecesUsed } from "@/core/record";
import { isOutOf, typedNumber } from "@/ui/form/typed-number";
import { keepFace } from "../face";
import { useActs, useLog, useScreen, useStart } from "../state";
import type { OpenSheet } from "../types";
import { BreathTaps } from "./breath-taps";
import { HandsPanel } from "./hands-panel";

function Pad({
  icon: Icon,
  children,
  wide = false,
  onPress,
}: {
  icon: typeof Coffee;
  children: ReactNode;
  wide?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className={`flex min-h-[72px] flex-col items-center justify-center gap-1 rounded-lg border-[2.5px] border-ink bg-paper px-1 font-head font-semibold active:bg-tarn-wash ${wide ? "col-span-2" : ""}`}
      onClick={onPress}
    >
      <Icon size={22} aria-hidden="true" />
      {children}
    </button>
  );
}

/** Everything else that can be pressed; a pad that opens no sheet closes this one. */
function MorePads() {
  const act = useActs();
  const { setSheet, face } = useScreen();
  const start = useStart();
  const { record } = useLog();
  const { battery } = start.session;
  const opens = (sheet: OpenSheet) => () => setSheet(sheet);
  const does = (press: () => void) => () => {
    setSheet(null);
    press();
  };
  const due = start.today.tries.flatMap((one) => dueTry(one, record) ?? []);
  return (
    <div className="grid grid-cols-3 gap-2">
      <Pad icon={Coffee} onPress={does(act.takeBreak)}>
        break
      </Pad>
      <Pad icon={ListOrdered} onPress={opens("block")}>
        block
      </Pad>
      {!battery && (
        <>
          <Pad icon={Layers} onPress={opens("ladder")}>
            ladder
          </Pad>
          <Pad icon={Hand} onPress={opens("touch")}>
            touch
          </Pad>
        </>
      )}
      <Pad icon={LogOut} onPress={does(act.away)}>
        leaves, is back
      </Pad>
      <Pad icon={Keyboard} onPress={opens("keys")}>
        keys, sounds
      </Pad>
      {!battery && (
        <Pad icon={MessagesSquare} onPress={opens("between")}>
          between asks
        </Pad>
      )}
      {due.map((one) => (
        <Pad key={one.of.id} icon={Scale} onPress={does(() => act.tryBoth(one))}>
          <span className="text-center leading-tight">
            try both
            <span className="block font-sans text-[0.8rem] font-normal">
              {one.tries.n} of {one.of.arms.length}: {one.way}
            </span>
          </span>
        </Pad>
      ))}
      {start.today.chains.length > 0 && (
        <Pad icon={Link2} onPress={opens("run")}>
          run the whole
        </Pad>
      )}
      <Pad icon={ArrowLeftRight} onPress={does(act.side)}>
        other side
      </Pad>
      {!battery && (
        <Pad icon={LayoutGrid} onPress={does(() => keepFace(face === "plain" ? "full" : "plain"))}>
          {face === "plain" ? "always all pads" : "fewer pads"}
        </Pad>
      )}
      <Pad icon={Flag} wide onPress={opens("finish")}>
        finish
      </Pad>
    </div>
  );
}

/** What is left in the pouch, and that it was filled up. Nothing where nobody counts it. */
function Pouch() {
  const act = useActs();
  const { setSheet } = useScreen();
  const { record } = useLog();
  const [typed, setTyped] = useState("");
  const pouch = pouchOf(record);
  if (pouch === null) return null;
  const pieces = typedNumber(typed);
  const good = pieces !== null && Number.isInteger(pieces) && !isOutOf(pieces, 1, 1000);
  return (
    <section className="flex flex-wrap items-end gap-2">
      <label className="text-sm font-semibold">
        Pouch, {Math.max(0, pouch - piecesUsed(record))} left; filled up to
        <input
          inputMode="numeric"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="field-box figures mt-1 w-28 font-normal"
        />
      </label>
      <button
        type="button"
        className="act-quiet min-h-12"
        disabled={!good}
        onClick={() => {
          if (pieces !== null) act.fillPouch(pieces);
          setSheet(null);
        }}
      >
        Fill it
      </button>
    </section>
  );
}

/** What is not needed every minute: break, block, ladder, touch, breathing, keys, finish. */
export function MoreSheet() {
  const act = useActs();
  const { setSheet } = useScreen();
  return (
    <div className="grid gap-4">
      <MorePads />
      <Pouch />
      <section>
        <h3 className="mb-1 font-semibold">Breathing</h3>
        <BreathTaps
          onRate={(taps) => {
            act.breath(taps);
            setSheet(null);
          }}
        />
      </section>
      <HandsPanel />
    </div>
  );
}
