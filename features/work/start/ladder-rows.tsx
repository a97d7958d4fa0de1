import type { ReactNode } from "react";
import type { StartChoices } from "@/core/start";
import { WayLink } from "@/ui/way";

type LadderChoice = StartChoices["ladders"][number];

/** No plan for today: what is worked is chosen or named in the recorder. */
export const FREE = "free";

function Row({
  value,
  checked,
  closed,
  onChosen,
  children,
}: {
  value: string;
  checked: boolean;
  closed: boolean;
  onChosen: (value: string) => void;
  children: ReactNode;
}) {
  return (
    <label className={`flex items-start gap-4 border-t-2 border-hair py-4 has-checked:bg-paper ${closed ? "" : "cursor-pointer"}`}>
      <input
        type="radio"
        name="ladder"
        value={value}
        checked={checked}
        disabled={closed}
        onChange={() => onChosen(value)}
        className="mt-1.5 size-5 shrink-0 accent-(--tarn)"
      />
      <span>{children}</span>
    </label>
  );
}

/** One ladder: what comes next on it and why, or why it is closed today. */
function LadderRow({
  horseId,
  ladder: { id, name, next, criterion, trying },
  checked,
  onChosen,
}: {
  horseId: string;
  ladder: LadderChoice;
  checked: boolean;
  onChosen: (id: string) => void;
}) {
  const closed = next.barred !== null;
  return (
    <Row value={id} checked={checked} closed={closed} onChosen={onChosen}>
      <span className="block font-head text-xl font-bold">{name}</span>
      <span className={`block font-semibold ${closed ? "text-brick" : "text-tarn"}`}>{next.headline}</span>
      {!closed && <span className="block text-lg">{criterion}</span>}
      <span className="block text-soft">{next.reason}</span>
      {closed && (
        <WayLink href={`/horses/${horseId}/know/limits`} className="link text-sm">
          See the limit, or go against it with a reason
        </WayLink>
      )}
      {trying !== null && <span className="block text-sm font-semibold text-tarn">{trying}</span>}
      {next.beside !== undefined && <span className="block text-sm text-soft">{next.beside}</span>}
    </Row>
  );
}

/** What is worked: one of the horse's ladders, or nothing planned; and the other ways to work. */
export function LadderRows({
  horseId,
  ladders,
  chosen,
  noWork,
  unread,
  onChosen,
}: {
  horseId: string;
  ladders: readonly LadderChoice[];
  chosen: string;
  /** Why no work may be begun today; null where it may. */
  noWork: string | null;
  /** Whether this device could not read the horse: its ladders are not missing, they are not seen. */
  unread: boolean;
  onChosen: (id: string) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-2 text-lg font-semibold">What</legend>
      <div className="border-b-2 border-hair">
        {ladders.map((one) => (
          <LadderRow key={one.id} horseId={horseId} ladder={one} checked={chosen === one.id} onChosen={onChosen} />
        ))}
        <Row value={FREE} checked={chosen === FREE} closed={noWork !== null} onChosen={onChosen}>
          <span className="block font-head text-xl font-bold">Free start</span>
          <span className="block text-soft">
            {unread
              ? "No plan for today. Name what you work on in the recorder."
              : "No plan for today. Choose a ladder in the recorder, or name something new there."}
          </span>
        </Row>
      </div>
      {unread && <p className="mt-3">Its ladders are on the computer.</p>}
      {!unread && ladders.length === 0 && (
        <p className="mt-3">
          No ladder yet.{" "}
          <WayLink href={`/horses/${horseId}/shape/new`} className="link">
            Plan one
          </WayLink>
          , or start free.
        </p>
      )}
      {!unread && (
        <p className="mt-3">
          <WayLink href={`/horses/${horseId}/work/circle`} className="link">
            Circle work
          </WayLink>{" "}
          by a plan and a clock: on a line, in a pen, in long lines.
        </p>
      )}
      {ladders.length > 0 && (
        <p className="mt-3 text-soft">
          Worked without the app?{" "}
          <WayLink href={`/horses/${horseId}/work/late`} className="link">
            Write a session down
          </WayLink>{" "}
          from memory or paper.
        </p>
      )}
    </fieldset>
  );
}
