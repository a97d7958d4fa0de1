import { counted } from "@/core/counted";
import { breathingAfterWork, cornerStands, freeWork, heatOf, isEdgeZone, lastHeartRate, type SessionRecord } from "@/core/session";
import { recoveryOf } from "@/core/welfare";
import { clockWords, percent } from "@/ui/measure";
import { RecoveryCurve } from "../work/sheets/recovery-curve";

const listOf = (value: unknown) => (Array.isArray(value) ? value.map(String) : []);

/** What was looked at before, how free work went, and what was done afterwards. */
export function Around({ record, restingBreaths }: { record: SessionRecord; restingBreaths: number | null }) {
  const before = record.facts.find(({ type }) => type === "preflight")?.payload;
  const heat = heatOf(record);
  const free = freeWork(record);
  const wasFree = free.departures > 0 || free.gait !== null;
  const zones = [...new Set(record.facts.flatMap(({ type, payload }) => (type === "zone" ? [String(payload.zone)] : [])))];
  const stands = cornerStands(record, new Set(zones.filter((name) => isEdgeZone({ name }))));
  const care = record.facts.findLast(({ type }) => type === "aftercare")?.payload;
  const recovery = recoveryOf(breathingAfterWork(record), restingBreaths, lastHeartRate(record));
  const stops = record.facts.filter(({ type }) => type === "safety");
  if (before === undefined && !wasFree && care === undefined && stops.length === 0) return null;
  return (
    <div className="mt-9 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 md:grid-cols-3">
      {before !== undefined && (
        <section>
          <h2 className="mb-1 text-xl">Before</h2>
          {before.skipped === true ? (
            <p>The look before work was skipped.</p>
          ) : (
            <>
              {heat !== null && (
                <p className="figures">
                  {String(before.air_c)} °C, {String(before.humidity)} % humidity
                  {typeof before.wind === "string" && `, ${before.wind}`}. Heat {Math.round(heat.sum)}: {heat.sentence}
                </p>
              )}
              <p>
                {listOf(before.open).length === 0
                  ? "All looked at and well."
                  : `Open: ${listOf(before.open).join(", ")}. The rest was well.`}
              </p>
            </>
          )}
        </section>
      )}
      {wasFree && (
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
      )}
      {(care !== undefined || stops.length > 0) && (
        <section>
          <h2 className="mb-1 text-xl">Afterwards</h2>
          {stops.map(({ id, ms, payload }) => (
            <p key={id} className="font-semibold text-brick">
              Stop at {clockWords(ms / 1000)}: {String(payload.what)}. Then: {String(payload.then ?? "")}.
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
