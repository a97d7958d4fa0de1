"use client";

import { useState } from "react";
import { counted } from "@/core/words";
import { Day } from "@/ui/day";
import { useActs, useLog, useScreen, useStart } from "../state";
import type { BlockChoice } from "../types";
import { BlockChooser } from "./block-chooser";

/** After a silence too long to be work: end the session where it was left, or go on. Nothing is decided by itself. */
export function ComeBack({ first }: { first: BlockChoice }) {
  const start = useStart();
  const session = useLog();
  const act = useActs();
  const { setSheet } = useScreen();
  const { record } = session;
  const [going, setGoing] = useState(false);
  const lastMs = (record.startWallMs ?? 0) + record.lastMs;
  return (
    <div className="rounded-lg border-2 border-ink p-4" data-testid="come-back">
      <h2 className="text-xl">
        Nothing tapped since <Day ms={lastMs} time />
      </h2>
      <p className="mt-1 mb-4 text-soft">
        More than {start.yard.settings.silenceMinutes} minutes: counted as a pause, not as work. {counted(record.trials.length, "answer")}{" "}
        so far.
      </p>
      {going ? (
        <BlockChooser start={start} first={first} onStart={act.begin} words="Start the block" />
      ) : (
        <div className="grid gap-2">
          <button type="button" className="act min-h-16 text-lg" onClick={() => setSheet("finish")}>
            End it at the last tap
          </button>
          <button type="button" className="act-quiet min-h-16 text-lg" onClick={() => setGoing(true)}>
            Go on with a new block
          </button>
          <button type="button" className="act-quiet min-h-14" onClick={act.wentOn}>
            We went on: count it as work
          </button>
        </div>
      )}
    </div>
  );
}
