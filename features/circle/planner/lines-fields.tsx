import type { LinesSetup } from "@/core/circle";
import { CheckRow, Choice, TextBox } from "@/ui/form";

const STEPS = [
  "two lines on a circle",
  "two lines, walking behind",
  "two lines, straight out",
  "dragging something light",
  "between poles, nothing hitched",
  "hitched, with a helper at the head",
] as const;

const SIDES = [
  { value: "L", label: "left" },
  { value: "R", label: "right" },
] as const;

const A_COMPANION = { name: "a steady horse", side: "L", ropeSlack: true, headAt: "its shoulder" } as const;

type Change = (change: Partial<LinesSetup>) => void;

/** The steady horse beside it: who, where, and how the two stand. */
function CompanionFields({ companion, change }: { companion: NonNullable<LinesSetup["companion"]>; change: Change }) {
  const set = (part: Partial<NonNullable<LinesSetup["companion"]>>) => change({ companion: { ...companion, ...part } });
  return (
    <div className="grid gap-3 border-l-4 border-hair pl-4 sm:grid-cols-2">
      <TextBox label="Who" value={companion.name} maxLength={80} onTyped={(name) => set({ name })} />
      <Choice label="On the" value={companion.side} options={SIDES} onChosen={(side) => set({ side })} />
      <TextBox label="This horse’s head stands at" value={companion.headAt} maxLength={80} onTyped={(headAt) => set({ headAt: headAt })} />
      <CheckRow
        className="self-end"
        label="its rope hangs slack"
        checked={companion.ropeSlack}
        onCheck={(slack) => set({ ropeSlack: slack })}
      />
    </div>
  );
}

/** What is on and who is where in long lines. */
export function LinesFields({ lines, change }: { lines: LinesSetup; change: Change }) {
  const { companion } = lines;
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-2 text-lg font-semibold">Long lines</legend>
      <TextBox label="Step" list="lines-steps" value={lines.step} maxLength={80} onTyped={(step) => change({ step })} />
      <datalist id="lines-steps">
        {STEPS.map((step) => (
          <option key={step} value={step} />
        ))}
      </datalist>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextBox
          label="Who leads at the head"
          value={lines.head}
          maxLength={80}
          placeholder="nobody"
          onTyped={(head) => change({ head })}
        />
        <Choice
          label="Traffic is on the"
          value={lines.traffic}
          options={[{ value: "none", label: "nowhere near" }, ...SIDES]}
          onChosen={(traffic) => change({ traffic })}
        />
        <Choice
          label="Blinkers"
          value={lines.blinkers}
          options={["none", "on", { value: "off", label: "off, carried along" }]}
          onChosen={(blinkers) => change({ blinkers })}
        />
        <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
          {(["traces", "breeching"] as const).map((key) => (
            <CheckRow key={key} label={key} checked={lines[key]} onCheck={(is) => change({ [key]: is })} />
          ))}
        </div>
      </div>
      <CheckRow
        label="the quick release was tried"
        checked={lines.releaseChecked}
        onCheck={(checked) => change({ releaseChecked: checked })}
      />
      <CheckRow
        label="a steady companion alongside"
        checked={companion !== null}
        onCheck={(is) => change({ companion: is ? A_COMPANION : null })}
      />
      {companion !== null && <CompanionFields companion={companion} change={change} />}
    </fieldset>
  );
}
