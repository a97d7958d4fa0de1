import type { YardFacts } from "@/core/pack";
import { kitCautions } from "@/core/welfare";

/** The kit in hand, and what is to be said of it for this ladder. Nothing where the yard has none. */
export function KitInHand({
  kit,
  taken,
  use,
  onTurn,
}: {
  kit: YardFacts["kit"];
  taken: ReadonlySet<string>;
  /** What the chosen ladder asks of kit; null where none is chosen. */
  use: Parameters<typeof kitCautions>[1] | null;
  onTurn: (id: string) => void;
}) {
  if (kit.length === 0) return null;
  const inHand = kit.filter(({ id }) => taken.has(id));
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Kit in hand</legend>
      <div className="flex flex-wrap gap-1.5">
        {kit.map(({ id, name }) => (
          <button
            key={id}
            type="button"
            aria-pressed={taken.has(id)}
            onClick={() => onTurn(id)}
            className={`min-h-11 rounded border-2 border-ink px-2.5 text-sm font-semibold ${taken.has(id) ? "bg-ink text-on-ink" : "bg-paper"}`}
          >
            {name}
          </button>
        ))}
      </div>
      {(use === null ? [] : kitCautions(inHand, use)).map((caution) => (
        <p key={caution} className="mt-2 border-l-4 border-ochre pl-3 text-sm">
          {caution}
        </p>
      ))}
    </fieldset>
  );
}
