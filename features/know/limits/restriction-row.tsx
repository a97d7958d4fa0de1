import { ReasonForm } from "./reason-form";
import { RestrictionForm } from "./restriction-form";
import type { ShownRestriction } from "./shown";
import { type LimitActs, YARD } from "./use-limits";

function RowLink({ words, expanded, onPress }: { words: string; expanded?: boolean; onPress: () => void }) {
  return (
    <button type="button" className="link no-print" aria-expanded={expanded} onClick={onPress}>
      {words}
    </button>
  );
}

/** Words in small letters under a limit. */
function Small({ words }: { words: readonly string[] }) {
  return words.map((one) => (
    <span key={one} className="block text-sm font-normal text-ink">
      {one}
    </span>
  ));
}

/** What the yard's own settings close for a young horse; the first line goes against all of it, for today. */
export function YardRow({
  sentence,
  gone,
  against,
  first,
  acts,
}: {
  sentence: string;
  /** Whether it was gone against today. */
  gone: boolean;
  against: readonly string[];
  first: boolean;
  acts: LimitActs;
}) {
  const asks = acts.open?.what === "against" && acts.open.id === YARD;
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 border-t-2 border-hair py-3.5">
      <p className={gone ? "text-lg text-soft" : "text-lg font-semibold text-brick"}>
        {sentence}
        <Small words={against} />
      </p>
      {first && !gone && (
        <RowLink words="Go against it today" expanded={asks} onPress={() => acts.setOpen({ what: "against", id: YARD })} />
      )}
      {first && gone && <RowLink words="Hold to it today after all" onPress={() => void acts.takeBack(YARD)} />}
      {first && asks && (
        <ReasonForm
          label="Why, for today"
          act="Go against it"
          onGive={(why) => void acts.goAgainst(YARD, why)}
          onLeave={() => acts.setOpen(null)}
        />
      )}
    </li>
  );
}

/** What can be done with a restriction as it stands. */
function RowLinks({ restriction: { id, holds, unread, ended, against }, acts }: { restriction: ShownRestriction; acts: LimitActs }) {
  const { open, setOpen } = acts;
  const gone = against.some(({ today }) => today);
  const isOpen = (what: "end" | "against") => open?.what === what && open.id === id;
  if (ended !== null) return <RowLink words="Holds again" onPress={() => void acts.holdsAgain(id)} />;
  return (
    <>
      {holds && !unread && !gone && (
        <RowLink words="Go against it today" expanded={isOpen("against")} onPress={() => setOpen({ what: "against", id })} />
      )}
      {holds && gone && <RowLink words="Hold to it today after all" onPress={() => void acts.takeBack(id)} />}
      <RowLink words="Change" onPress={() => setOpen({ what: "edit", id })} />
      <RowLink words="End it" expanded={isOpen("end")} onPress={() => setOpen({ what: "end", id })} />
    </>
  );
}

/** One restriction: what it says, whether it holds, and what was done with it. */
export function RestrictionRow({ horseId, restriction, acts }: { horseId: string; restriction: ShownRestriction; acts: LimitActs }) {
  const { id, sentence, holds, when, overlaps, ended, against, input } = restriction;
  const close = () => acts.setOpen(null);
  const what = acts.open?.id === id ? acts.open.what : null;
  return (
    <li className="border-t-2 border-hair py-3.5">
      {what === "edit" ? (
        <RestrictionForm horseId={horseId} id={id} start={input} onDone={close} />
      ) : (
        <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
          <p className={holds ? "text-lg font-semibold text-brick" : "text-lg text-soft"}>
            {sentence}
            <span className="ml-3 text-sm font-normal text-soft">{when}</span>
            {ended !== null && <span className="block text-sm font-normal">Ended: {ended}</span>}
            <Small words={against.map(({ words }) => words)} />
            {overlaps && <Small words={["Overlaps another of its kind: the stricter holds."]} />}
          </p>
          <p className="no-print flex gap-5">
            <RowLinks restriction={restriction} acts={acts} />
          </p>
          {what === "end" && <ReasonForm label="Why it ends" act="End it" onGive={(why) => void acts.end(id, why)} onLeave={close} />}
          {what === "against" && (
            <ReasonForm
              label={`Why, for today${input.given_by === "" ? "" : `; it is advice of ${input.given_by}, ask first`}`}
              act="Go against it"
              onGive={(why) => void acts.goAgainst(id, why)}
              onLeave={close}
            />
          )}
        </div>
      )}
    </li>
  );
}
