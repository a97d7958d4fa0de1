import type { SidePicture } from "@/core/compare";
import { percent } from "@/ui/measure";

const WIDTH = 320;
const HEIGHT = 152;
/** A gap of one half and more hangs at its lowest. */
const LOWEST = 0.5;

/**
 * Left and right as a balance: the pan of the side that is met more often
 * hangs lower. Drawn whole where a difference is shown, dashed where what hangs
 * may be chance. The words beside it say the same.
 */
export function Balance({ picture, name }: { picture: SidePicture; name: string }) {
  const { left, right, contrast, weaker } = picture;
  const shareOf = ({ met, of }: { met: number; of: number }) => (of === 0 ? null : met / of);
  const gap = contrast.difference ?? 0;
  const tilt = Math.max(-1, Math.min(1, gap / LOWEST)) * 26;
  const [x1, x2] = [58, WIDTH - 58];
  const [y1, y2] = [34 - tilt, 34 + tilt];
  const told = weaker !== null;
  const pan = (x: number, y: number, share: number | null, counts: string, side: string) => (
    <g>
      <path d={`M${x} ${y} l-26 30 M${x} ${y} l26 30`} stroke="var(--ink)" strokeWidth="1.3" fill="none" />
      <path
        d={`M${x - 34} ${y + 30} q34 18 68 0`}
        stroke="var(--ink)"
        strokeWidth="var(--stroke)"
        fill={told ? "var(--tarn-wash)" : "none"}
      />
      <text x={x} y={y + 60} textAnchor="middle" fontSize="16" fontWeight="700" fill="var(--ink)">
        {share === null ? "–" : percent(share)}
      </text>
      <text x={x} y={y + 77} textAnchor="middle" fontSize="12.5" fill="var(--soft)">
        {side} {counts}
      </text>
    </g>
  );
  const counts = ({ met, of }: { met: number; of: number }) => `${met} of ${of}`;
  // Of what was compared, rung by rung; of everything where nothing could be.
  const [a, b] = contrast.n === 0 ? [left, right] : [contrast.first, contrast.second];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      className="max-w-full"
      role="img"
      aria-label={`${name}: left ${counts(a)}, right ${counts(b)}. ${picture.headline}.`}
    >
      <path
        d={`M${WIDTH / 2} 34 V138 M${WIDTH / 2 - 34} 138 H${WIDTH / 2 + 34}`}
        stroke="var(--ink)"
        strokeWidth="var(--stroke)"
        fill="none"
      />
      <path
        d={`M${x1} ${y1} L${x2} ${y2}`}
        stroke={told ? "var(--tarn)" : "var(--ink)"}
        strokeWidth={told ? 5 : 2}
        strokeDasharray={told ? undefined : "6 5"}
      />
      <circle cx={WIDTH / 2} cy="34" r="5" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      {pan(x1, y1, shareOf(a), counts(a), "left")}
      {pan(x2, y2, shareOf(b), counts(b), "right")}
    </svg>
  );
}
