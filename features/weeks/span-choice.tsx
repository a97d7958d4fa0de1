import Link from "next/link";
import { type PastSpan, SPANS, USUAL_SPAN } from "@/core/past";

/** Keys of an address that go along when another is changed. */
export type AddressKeys = Readonly<Record<string, string | undefined>>;

const query = (kept: AddressKeys) =>
  new URLSearchParams(
    Object.entries(kept).flatMap(([key, value]) => (value === undefined || value === "" ? [] : [[key, value]])),
  ).toString();

/** An address with these keys. @example addressOf("/x", { span: "14" }) // "/x?span=14" */
export const addressOf = (path: string, kept: AddressKeys): string => {
  const text = query(kept);
  return text === "" ? path : `${path}?${text}`;
};

/** How the span stands in an address; nothing for the usual one. */
export const spanKeys = ({ key, from, to }: PastSpan, usual: string = USUAL_SPAN): AddressKeys =>
  key === "own" ? { from, to } : { span: key === usual ? undefined : key };

/** Which stretch of time a view is about: one that stands ready, or from one day to another. */
export function SpanChoice({
  path,
  span,
  kept = {},
  usual = USUAL_SPAN,
}: {
  path: string;
  span: PastSpan;
  kept?: AddressKeys;
  /** What the view opens on. */
  usual?: string;
}) {
  return (
    <div className="no-print flex flex-wrap items-end gap-x-5 gap-y-2">
      <nav aria-label="Span">
        <ul className="flex flex-wrap gap-x-1">
          {SPANS.map(({ key, label }) => (
            <li key={key}>
              <Link
                href={addressOf(path, { ...kept, span: key === usual ? undefined : key })}
                aria-current={key === span.key ? "true" : undefined}
                className={`block rounded px-2 py-1 text-[0.95rem] ${key === span.key ? "bg-tarn-wash font-semibold" : "hover:underline"}`}
              >
                {label}
              </Link>
            </li>
          ))}
        </ul>
      </nav>
      <form action={path} className="flex flex-wrap items-end gap-2 text-sm">
        {Object.entries(kept).map(([key, value]) =>
          value === undefined || value === "" ? null : <input key={key} type="hidden" name={key} value={value} />,
        )}
        <label>
          From
          <input type="date" name="from" defaultValue={span.from} className="field-box figures mt-0.5 block py-1" />
        </label>
        <label>
          to
          <input type="date" name="to" defaultValue={span.to} className="field-box figures mt-0.5 block py-1" />
        </label>
        <button type="submit" className="act-quiet py-1">
          Show
        </button>
      </form>
    </div>
  );
}

/** Which ladder a view is about. */
export function LadderChoice({
  path,
  ladders,
  chosen,
  kept = {},
  all = false,
}: {
  path: string;
  ladders: readonly { readonly id: string; readonly name: string }[];
  chosen: string | null;
  kept?: AddressKeys;
  /** Whether all of them together may be chosen. */
  all?: boolean;
}) {
  const shown = [...(all ? [{ id: "", name: "all behaviours" }] : []), ...ladders];
  if (shown.length < 2) return null;
  return (
    <nav aria-label="Behaviour" className="no-print">
      <ul className="flex flex-wrap gap-x-1 gap-y-1">
        {shown.map(({ id, name }) => (
          <li key={id}>
            <Link
              href={addressOf(path, { ...kept, ladder: id })}
              aria-current={id === (chosen ?? "") ? "true" : undefined}
              className={`block rounded border px-2.5 py-1 text-[0.95rem] ${id === (chosen ?? "") ? "border-ink bg-ink text-on-ink" : "border-hair hover:border-ink"}`}
            >
              {name}
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}
