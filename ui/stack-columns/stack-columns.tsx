import { ScrollBox } from "../scroll-box";

/** One column: minutes stacked, from the ground up. */
export interface StackColumn {
  /** What it is, for the table and whoever cannot see it. */
  readonly name: string;
  readonly parts: readonly { readonly key: string; readonly minutes: number }[];
  /** Planned columns are drawn as outlines. */
  readonly planned: boolean;
  /** A mark over the column, as a word. */
  readonly mark?: string;
  /** Where a new week begins: its word under the line. */
  readonly week?: string;
}

const HEIGHT = 150;
const GROUND = 118;
const FILLS: Readonly<Record<string, string>> = {
  walk: "var(--tarn-wash)",
  trot: "var(--tarn)",
  canter: "var(--plum)",
  obstacles: "var(--ochre)",
};
const DASHES: Readonly<Record<string, string>> = { walk: "", trot: "", canter: "2 2" };

/** Minutes as stacked columns along the weeks: done ones full, planned ones in outline; a line where a cap lies. */
export function StackColumns({
  columns,
  label,
  capMinutes = null,
}: {
  columns: readonly StackColumn[];
  label: string;
  capMinutes?: number | null;
}) {
  const most = Math.max(5, capMinutes ?? 0, ...columns.map(({ parts }) => parts.reduce((sum, { minutes }) => sum + minutes, 0)));
  const width = Math.max(640, columns.length * 18 + 40);
  const step = (width - 40) / Math.max(1, columns.length);
  const y = (minutes: number) => GROUND - (minutes / most) * (GROUND - 22);
  return (
    <div>
      <ScrollBox label="Columns" className="max-w-4xl">
        <svg
          viewBox={`0 0 ${width} ${HEIGHT}`}
          className="block h-auto w-full min-w-[36rem]"
          role="img"
          aria-label={`${label}. The table below has every number.`}
        >
          {columns.map(({ name, parts, planned, mark, week }, i) => {
            const left = 34 + i * step;
            const wide = Math.min(26, step - 4);
            let below = 0;
            return (
              <g key={name}>
                {week !== undefined && (
                  <>
                    <line x1={left - 2} x2={left - 2} y1={16} y2={GROUND + 6} stroke="var(--hair)" strokeWidth={1} />
                    <text x={left} y={HEIGHT - 12} fontSize={11} fill="var(--soft)">
                      {week}
                    </text>
                  </>
                )}
                {parts.map(({ key, minutes }) => {
                  const bottom = below;
                  below += minutes;
                  return minutes <= 0 ? null : (
                    <rect
                      key={key}
                      x={left}
                      y={y(below)}
                      width={wide}
                      height={y(bottom) - y(below)}
                      fill={FILLS[key] ?? "var(--hair)"}
                      fillOpacity={planned ? 0.3 : 1}
                      stroke="var(--ink)"
                      strokeWidth={planned ? 1 : 1.6}
                      strokeDasharray={planned ? "3 2" : DASHES[key]}
                    />
                  );
                })}
                {mark !== undefined && (
                  <text x={left + wide / 2} y={y(below) - 4} fontSize={11} textAnchor="middle" fill="var(--ink)">
                    {mark}
                  </text>
                )}
              </g>
            );
          })}
          <line x1={30} x2={width} y1={GROUND} y2={GROUND} stroke="var(--ink)" strokeWidth={2} />
          {[0, most / 2, most].map((minutes) => (
            <text key={minutes} x={26} y={y(minutes) + 4} fontSize={11} textAnchor="end" fill="var(--soft)">
              {Math.round(minutes)}
            </text>
          ))}
          {capMinutes !== null && (
            <g>
              <line x1={30} x2={width} y1={y(capMinutes)} y2={y(capMinutes)} stroke="var(--brick)" strokeWidth={2} strokeDasharray="7 4" />
              <text x={width - 2} y={y(capMinutes) - 4} fontSize={11} textAnchor="end" fill="var(--brick)">
                cap
              </text>
            </g>
          )}
        </svg>
      </ScrollBox>
      <details className="mt-1">
        <summary className="min-h-11 cursor-pointer text-sm text-soft">As a table</summary>
        <ScrollBox label="The numbers">
          <table className="figures w-full text-sm">
            <thead>
              <tr className="text-left">
                <th className="pr-4">When</th>
                {(columns[0]?.parts ?? []).map(({ key }) => (
                  <th key={key} className="pr-4 text-right">
                    {key}
                  </th>
                ))}
                <th>What</th>
              </tr>
            </thead>
            <tbody>
              {columns.map(({ name, parts, planned, mark }) => (
                <tr key={name} className="border-t border-hair">
                  <td className="pr-4 whitespace-nowrap">{name}</td>
                  {parts.map(({ key, minutes }) => (
                    <td key={key} className="pr-4 text-right">
                      {Math.round(minutes * 10) / 10}
                    </td>
                  ))}
                  <td>
                    {planned ? "planned" : "done"}
                    {mark === undefined ? "" : `, ${mark}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
      </details>
    </div>
  );
}
