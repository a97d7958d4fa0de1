import { heatOf } from "@/core/advice";
import {
  breathingAfterWork,
  cornerStands,
  edgeZonesOf,
  freeWork,
  heartReadings,
  lastTemperature,
  lookedWords,
  type SessionRecord,
} from "@/core/record";
import type { Payload } from "@/core/schemas";
import type { YardSettings } from "@/core/settings";
import { celsiusToFahrenheit } from "@/core/units";
import { heatWords, recoveryOf } from "@/core/welfare";
import { counted } from "@/core/words";
import { clockWords, percent } from "@/ui/measure";
import { RecoveryCurve } from "@/ui/measure/recovery-curve";

type Free = ReturnType<typeof freeWork>;

/** What was looked at before work, and the heat. */
function Before({ before, heat, fahrenheit }: { before: Payload<"preflight">; heat: ReturnType<typeof heatOf>; fahrenheit: boolean }) {
  return (
    <section>
      <h2 className="mb-1 text-xl">Before</h2>
      {before.skipped === true ? (
        <p>The look before work was skipped.</p>
      ) : (
        <>
          {heat !== null && (
            <p className="figures">
              {fahrenheit ? `${Math.round(celsiusToFahrenheit(before.air_c ?? 0))} °F` : `${before.air_c} °C`}, {before.humidity} % humidity
              {before.wind != null && `, ${before.wind}`}. {heatWords(heat, fahrenheit)}
            </p>
          )}
          <p>{lookedWords(before)}</p>
          {before.heat_reason !== undefined && <p>Begun in the heat because: {before.heat_reason}.</p>}
        </>
      )}
    </section>
  );
}

/** How free work went: near or away, in which gaits, and where it stood. */
function FreeWork({ free, stands }: { free: Free; stands: ReturnType<typeof cornerStands> }) {
  return (
    <section>
      <h2 className="mb-1 text-xl">Free work</h2>
      <p className="figures">
        With the handler {clockWords(free.connectedSeconds)}
        {free.connectedShare !== null && `, ${percent(free.connectedShare)} of the work`}; longest{" "}
        {clockWords(free.longestConnectedSeconds)}; left {counted(free.departures, "time")}
        {free.departuresPerTenMinutes !== null && `, ${free.departuresPerTenMinutes.toFixed(1)} in ten minutes`}.
      </p>
      {free.gait !== null && (
        <p className="figures">
          {Object.entries(free.secondsByGait)
            .map(([gait, seconds]) => `${gait} ${clockWords(seconds)}`)
            .join(", ")}
          ; turned {counted(free.directionChanges, "time")}.
        </p>
      )}
      {stands.length > 0 && (
        <p className="figures text-brick">
          Stood over 5 s: {stands.map(({ zone, seconds }) => `${zone} ${Math.round(seconds)} s`).join(", ")}.
        </p>
      )}
    </section>
  );
}

/** What was looked at before, how free work went, and what was done afterwards. */
export function Around({
  record,
  zones,
  restingBreaths,
  heatLowerCelsius,
  settings,
  fahrenheit,
}: {
  record: SessionRecord;
  /** The zones of the place's plan. */
  zones: readonly { readonly name: string; readonly kind: string }[];
  restingBreaths: number | null;
  /** By how much the bounds of heat lie lower for this horse. */
  heatLowerCelsius: number;
  /** The yard's own bounds of heat. */
  settings: YardSettings;
  fahrenheit: boolean;
}) {
  const before = record.facts.find((fact) => fact.type === "preflight")?.payload;
  const heat = heatOf(record, settings, heatLowerCelsius);
  const hot = heat !== null && heat.level !== "usual";
  const free = freeWork(record);
  // Work on the circle has its gaits in a part of its own.
  const wasFree = (free.departures > 0 || free.gait !== null) && !record.facts.some(({ type }) => type === "circle.start");
  const stands = cornerStands(record, edgeZonesOf(record, zones));
  const care = record.facts.findLast((fact) => fact.type === "aftercare")?.payload;
  const recovery = recoveryOf(breathingAfterWork(record), restingBreaths, {
    hearts: heartReadings(record),
    celsius: lastTemperature(record),
    hard: hot,
    hot,
    withinShare: settings.coolWithinShare,
  });
  const stops = record.facts.filter((fact) => fact.type === "safety");
  if (before === undefined && !wasFree && care === undefined && stops.length === 0) return null;
  return (
    <div className="mt-9 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 md:grid-cols-3">
      {before !== undefined && <Before before={before} heat={heat} fahrenheit={fahrenheit} />}
      {wasFree && <FreeWork free={free} stands={stands} />}
      {(care !== undefined || stops.length > 0) && (
        <section>
          <h2 className="mb-1 text-xl">Afterwards</h2>
          {stops.map(({ id, ms, payload }) => (
            <p key={id} className="font-semibold text-brick">
              Stop at {clockWords(ms / 1000)}: {payload.what}. Then: {payload.then ?? ""}.
            </p>
          ))}
          {care !== undefined && (
            <>
              <p>
                {care.walked_off === true ? "Walked off." : "Not walked off."} Legs: {String(care.legs || "not looked at")}. Kit:{" "}
                {String(care.kit || "not looked at")}.{typeof care.food_g === "number" && ` Food: ${care.food_g} g.`}
              </p>
              {recovery.readings.length > 0 && (
                <>
                  <RecoveryCurve recovery={recovery} restingPerMinute={restingBreaths} />
                  <p className="text-sm">{recovery.sentence}</p>
                </>
              )}
            </>
          )}
        </section>
      )}
    </div>
  );
}
