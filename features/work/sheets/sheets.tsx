"use client";

import { counted } from "@/core/words";
import { TouchBoard } from "../../touch/touch-board";
import type { FinishNotes } from "../acts/session-acts";
import { KeysSheet } from "../keys/keys-sheet";
import { useActs, useLog, useScreen, useStart } from "../state";
import type { BlockChoice } from "../types";
import { BetweenSheet } from "./between-sheet";
import { BlockChooser } from "./block-chooser";
import { FinishForm } from "./finish-form";
import { LadderSheet } from "./ladder-sheet";
import { MoreSheet } from "./more-sheet";
import { RunSheet } from "./run-sheet";
import { Sheet } from "./sheet";
import { TriesDue } from "./tries-due";

/** What lies over the recorder: blocks, ladders, more, keys, touch and the finish. */
export function Sheets({
  first,
  chain,
  onFinish,
}: {
  first: BlockChoice;
  /** The chain the session was begun for, by its id. */
  chain: string | null;
  onFinish: (notes: FinishNotes) => void;
}) {
  const start = useStart();
  const session = useLog();
  const { sheet, setSheet } = useScreen();
  const act = useActs();
  const { record } = session;
  const close = () => setSheet(null);
  return (
    <>
      <Sheet open={sheet === "block"} onClose={close} title="Next block" description="The running block ends when this one starts.">
        <TriesDue />
        <BlockChooser key={record.blocks.length} start={start} first={first} onStart={act.begin} words="Start the block" />
      </Sheet>
      <Sheet open={sheet === "ladder"} onClose={close} title="Go over to" description="The running block ends when the next one starts.">
        <LadderSheet />
      </Sheet>
      <Sheet open={sheet === "more"} onClose={close} title="More" description="What is not needed every minute.">
        <MoreSheet />
      </Sheet>
      <Sheet open={sheet === "finish"} onClose={close} title="Finish" description={`${counted(record.trials.length, "trial")} so far.`}>
        <FinishForm onFinish={onFinish} />
      </Sheet>
      <Sheet open={sheet === "touch"} onClose={act.closeTouch} title="Touch" description="Tap where, then how it was taken.">
        <TouchBoard touches={start.today.touches} record={record} offLimits={start.today.allowance.touchOff} onTouch={act.touch} />
      </Sheet>
      <Sheet
        open={sheet === "between"}
        onClose={close}
        title="Between the asks"
        description="What the horse does by itself, and what you do."
      >
        <BetweenSheet />
      </Sheet>
      <Sheet open={sheet === "run"} onClose={close} title="Run the whole" description="One press as each link is reached.">
        <RunSheet wanted={chain} />
      </Sheet>
      <Sheet open={sheet === "keys"} onClose={close} title="Keys and sounds" description="Kept on this device.">
        <KeysSheet />
      </Sheet>
    </>
  );
}
