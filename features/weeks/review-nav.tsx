import Link from "next/link";

/** The parts of Review. */
const PARTS = [
  { key: "", label: "Sessions" },
  { key: "weeks", label: "Over weeks" },
  { key: "sides", label: "Sides" },
  { key: "compare", label: "Compare" },
  { key: "try-both", label: "Try both" },
  { key: "changes", label: "Changes" },
  { key: "moments", label: "Moments" },
  { key: "month", label: "Month" },
] as const;

export type ReviewPart = (typeof PARTS)[number]["key"];

/** Leads between the parts of Review. */
export function ReviewNav({ horseId, here }: { horseId: string; here: ReviewPart }) {
  return (
    <nav aria-label="Review" className="no-print -mx-1 mb-5 overflow-x-auto">
      <ul className="flex gap-x-1 text-[0.95rem]">
        {PARTS.map(({ key, label }) => (
          <li key={key} className="shrink-0">
            <Link
              href={`/horses/${horseId}/review${key === "" ? "" : `/${key}`}`}
              aria-current={key === here ? "page" : undefined}
              className={`block rounded px-2.5 py-1.5 ${key === here ? "bg-ink font-semibold text-on-ink" : "hover:underline"}`}
            >
              {label}
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}
