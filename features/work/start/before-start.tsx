import type { Unfinished } from "@/core/pack";
import type { HandlerChoices } from "@/core/start";
import type { OpenCoolDown } from "@/core/today";
import { Day } from "@/ui/day";
import { WayLink } from "@/ui/way";
import { UnfinishedSessions } from "./unfinished";

/** What holds before anything is begun: what was written for today, what is open, what closes it. */
export function BeforeStart({
  horse,
  storeId,
  doNext,
  limits,
  open,
  cooling,
}: {
  horse: { readonly id: string; readonly name: string; readonly away: string | null };
  storeId: string;
  doNext: HandlerChoices["choices"]["doNext"];
  limits: readonly string[];
  open: readonly Unfinished[];
  cooling: readonly OpenCoolDown[];
}) {
  return (
    <>
      {doNext !== null && (
        <p className="mt-2 border-l-4 border-tarn pl-4 font-head text-xl font-bold text-tarn">
          {doNext.text}
          <span className="block font-sans text-sm font-normal text-soft">
            for today, written <Day ms={doNext.dayMs} />
          </span>
        </p>
      )}
      {cooling.map(({ session, handedTo }) => (
        <p key={session} className="mt-3 border-l-4 border-ochre pl-4 font-semibold">
          A cool-down is not finished{handedTo === null ? "" : `, handed to ${handedTo}`}.{" "}
          <WayLink href={`/horses/${horse.id}/work/${session}`} className="link">
            Take the breathing again
          </WayLink>
        </p>
      ))}
      <UnfinishedSessions horseId={horse.id} storeId={storeId} sessions={open} />
      {horse.away !== null && (
        <p className="mt-4 border-l-4 border-brick pl-4 font-semibold text-brick">
          {horse.name} is put away: {horse.away}.{" "}
          <WayLink href={`/horses/${horse.id}/know/limits`} className="link">
            Bring it back
          </WayLink>{" "}
          before work.
        </p>
      )}
      {limits.length > 0 && (
        <div className="mt-4 border-l-4 border-brick pl-4 font-semibold text-brick">
          {limits.map((limit) => (
            <p key={limit}>{limit}</p>
          ))}
        </div>
      )}
    </>
  );
}
