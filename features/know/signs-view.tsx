import { addSigns, commonestSigns, longEnough, SIGN_CLASSES, type SignCounts, type SignRate, signRate } from "@/core/know";
import type { PooledBreathing } from "@/core/welfare";
import { counted } from "@/core/words";
import { KeepResting } from "./keep-resting";

interface SignsViewProps {
  readonly horseId: string;
  /** Session by session. */
  readonly rest: readonly SignCounts[];
  readonly work: readonly SignCounts[];
  /** Sessions shorter than this make no rate, in minutes. */
  readonly leastMinutes: number;
  readonly breathing: PooledBreathing | null;
  readonly heart: { readonly perMinute: number; readonly readings: number } | null;
  readonly kept: { readonly breaths: number | null; readonly heart: number | null };
  readonly children: React.ReactNode;
}

/** How far a rate reaches, and how many sessions it rests on. */
function reachWords({ interval, sessions }: SignRate): string {
  if (interval === null) return "two sessions are too few to tell how days differ";
  const span = `${interval[0].toFixed(1)} to ${interval[1].toFixed(1)}`;
  return sessions === 1 ? `in that one session ${span}` : `could be ${span}`;
}

/** What was too short for a rate, with what it showed: danger seen in a moment was seen. */
function shortWords(short: readonly SignCounts[], leastMinutes: number): string {
  const { byClass } = addSigns(short);
  const shown = SIGN_CLASSES.flatMap((kind) => (byClass[kind] > 0 ? [`${kind} ${byClass[kind]}`] : []));
  const left = `${counted(short.length, "session")} under ${leastMinutes} min left out: too short for a rate.`;
  return shown.length === 0 ? left : `${left} Seen there: ${shown.join(", ")}.`;
}

function Rates({ title, signs, leastMinutes, none }: { title: string; signs: readonly SignCounts[]; leastMinutes: number; none: string }) {
  const long = longEnough(signs, leastMinutes);
  const all = addSigns(long);
  const short = signs.filter((one) => !long.includes(one) && (one.minutes > 0 || SIGN_CLASSES.some((kind) => one.byClass[kind] > 0)));
  return (
    <section>
      <h2 className="border-b-2 border-ink pb-1 text-xl">
        {title}{" "}
        <span className="figures font-sans text-sm font-normal text-soft">
          {all.minutes > 0 && `${Math.round(all.minutes)} min watched in ${counted(long.length, "session")}`}
        </span>
      </h2>
      {!(all.minutes > 0) ? (
        short.length === 0 && <p className="mt-2 text-soft">{none}</p>
      ) : (
        <dl className="mt-2 grid gap-2.5">
          {SIGN_CLASSES.map((kind) => {
            const rate = signRate(long, kind, leastMinutes);
            if (rate === null) return null;
            const names = commonestSigns(all, kind);
            return (
              <div key={kind} className="figures">
                <dt className="flex items-baseline justify-between gap-4">
                  <span className="font-semibold">{kind}</span>
                  <span>
                    <strong>{rate.perTenMinutes.toFixed(1)}</strong> in ten minutes
                  </span>
                </dt>
                <dd className="text-sm text-soft">
                  {reachWords(rate)}; {rate.count} seen{names.length > 0 && `: ${names.map(({ name, n }) => `${name} ${n}`).join(", ")}`}
                </dd>
              </div>
            );
          })}
        </dl>
      )}
      {short.length > 0 && <p className="mt-2.5 text-sm text-soft">{shortWords(short, leastMinutes)}</p>}
    </section>
  );
}

/** This horse's own usual, at rest and at work, for later sessions to be compared with. */
export function SignsView({ horseId, rest, work, leastMinutes, breathing, heart, kept, children }: SignsViewProps) {
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-[2rem]">Signs</h1>
        {children}
      </div>
      <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-3">
        <Rates
          title="At rest"
          signs={rest}
          leastMinutes={leastMinutes}
          none="Not watched at rest yet: ten minutes on a few days make its own usual."
        />
        <Rates title="At work" signs={work} leastMinutes={leastMinutes} none="No work recorded yet." />
        <section>
          <h2 className="border-b-2 border-ink pb-1 text-xl">Breathing and heart at rest</h2>
          <dl className="figures mt-2 grid gap-2.5">
            <div>
              <dt className="flex items-baseline justify-between gap-4">
                <span className="font-semibold">breathing</span>
                <span>
                  {breathing === null ? (
                    "not counted yet"
                  ) : (
                    <>
                      <strong>{breathing.perMinute.toFixed(1)}</strong> a minute
                      <span className="text-soft">
                        {breathing.interval !== null && `, ${breathing.interval[0].toFixed(1)} to ${breathing.interval[1].toFixed(1)}`}
                      </span>
                    </>
                  )}
                </span>
              </dt>
              <dd className="text-sm text-soft">
                {breathing !== null && `${counted(breathing.readings, "reading")} together. `}
                {kept.breaths === null ? "No resting rate kept." : `Kept as resting rate: ${kept.breaths} a minute.`}
              </dd>
            </div>
            <div>
              <dt className="flex items-baseline justify-between gap-4">
                <span className="font-semibold">heart</span>
                <span>{heart === null ? "not counted yet" : `${heart.perMinute.toFixed(0)} a minute`}</span>
              </dt>
              <dd className="text-sm text-soft">
                {heart !== null && `${counted(heart.readings, "reading")}. `}
                {kept.heart === null ? "No resting rate kept." : `Kept as resting rate: ${kept.heart} a minute.`}
              </dd>
            </div>
          </dl>
          <KeepResting horseId={horseId} breaths={breathing?.perMinute ?? null} heart={heart?.perMinute ?? null} kept={kept} />
        </section>
      </div>
      <p className="mt-6 max-w-prose text-sm text-soft">
        Signs come in bouts and days, so a range goes by how sessions differ; of one session it is that of a count (Garwood 1936). Each
        session is compared with this in its Review. A horse that differs from its own usual at rest may be ill or in pain: ask a
        veterinarian.
      </p>
    </>
  );
}
