import Link from "next/link";

/** The parts of knowing a horse. */
const PARTS = [
  { key: "", label: "Today" },
  { key: "first-look", label: "First look" },
  { key: "touch", label: "Body" },
  { key: "places", label: "Places" },
  { key: "connection", label: "Goes to" },
  { key: "signs", label: "Signs" },
  { key: "limits", label: "Limits" },
] as const;

export type KnowPart = (typeof PARTS)[number]["key"];

/** Leads between the parts of Know. */
export function KnowNav({ horseId, here }: { horseId: string; here: KnowPart }) {
  return (
    <nav aria-label="Know" className="no-print -mx-1 mb-5 overflow-x-auto">
      <ul className="flex gap-x-1 text-[0.95rem]">
        {PARTS.map(({ key, label }) => (
          <li key={key} className="shrink-0">
            <Link
              href={`/horses/${horseId}/know${key === "" ? "" : `/${key}`}`}
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
