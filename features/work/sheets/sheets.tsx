"use client";

import { counted } from "@/core/counted";
import { TouchBoard } from "../../touch/touch-board";
import type { FinishNotes } from "../acts/block-acts";
import { KeysSheet } from "../keys/keys-sheet";
import type { BlockChoice } from "../types";
import type { RecorderState } from "../use-recorder";
import { BlockChooser } from "./block-chooser";
import { FinishForm } from "./finish-form";
import { LadderSheet } from "./ladder-sheet";
import { MoreSheet } from "./more-sheet";
import { Sheet } from "./sheet";

/** What lies over the recorder: blocks, ladders, more, keys, touch and the finish. */
export function Sheets({ state, first, onFinish }: { state: RecorderState; first: BlockChoice; onFinish: (notes: FinishNotes) => void }) {
  const { start, session, sheet, setSheet, act } = state;
  const { record } = session;
  const close = () => setSheet(null);
  return (
    <>
      <Sheet open={sheet === "block"} onClose={close} title="Next block" description="The running block ends when this one starts.">
        <BlockChooser key={record.blocks.length} start={start} first={first} onStart={act.begin} words="Start the block" />
      </Sheet>
      <Sheet open={sheet === "ladder"} onClose={close} title="Go over to" description="The running block ends when the next one starts.">
        <LadderSheet state={state} />
      </Sheet>
      <Sheet open={sheet === "more"} onClose={close} title="More" description="What is not needed every minute.">
        <MoreSheet state={state} />
      </Sheet>
      <Sheet open={sheet === "finish"} onClose={close} title="Finish" description={`${counted(record.trials.length, "trial")} so far.`}>
        <FinishForm onFinish={onFinish} />
      </Sheet>
      <Sheet open={sheet === "touch"} onClose={act.closeTouch} title="Touch" description="Tap where, then how it was taken.">
        <TouchBoard touches={start.touches} record={record} offLimits={start.allowance.touchOff} onTouch={act.touch} />
      </Sheet>
      <Sheet open={sheet === "keys"} onClose={close} title="Keys and sounds" description="Kept on this device.">
        <KeysSheet />
      </Sheet>
    </>
  );
}
