import Link from "next/link";

/** Leads between the parts of a room. */
export function RoomNav({
  name,
  base,
  parts,
  here,
}: {
  name: string;
  /** Address of the room; its parts lie under it. */
  base: string;
  parts: readonly { readonly key: string; readonly label: string }[];
  here: string;
}) {
  return (
    <nav aria-label={name} className="no-print -mx-1 mb-5 overflow-x-auto">
      <ul className="flex gap-x-1 text-[0.95rem]">
        {parts.map(({ key, label }) => (
          <li key={key} className="shrink-0">
            <Link
              href={`${base}${key === "" ? "" : `/${key}`}`}
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
