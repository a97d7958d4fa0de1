import type { SessionRecord } from "./reduce";

/** Where the horse is said to be now, and whether it has left its handler. */
export interface Whereabouts {
  readonly zone: string | null;
  readonly away: boolean;
}

/** The last zone tapped, and whether a departure is still open. A return without a zone leads back to where it left. */
export function whereNow({ facts }: Pick<SessionRecord, "facts">): Whereabouts {
  let zone: string | null = null;
  let left: { readonly from: string | null } | null = null;
  const text = (value: unknown) => (typeof value === "string" && value !== "" ? value : null);
  for (const { type, payload } of facts) {
    if (type === "zone") zone = text(payload.zone);
    else if (type === "depart" && left === null) {
      left = { from: text(payload.from) ?? zone };
      zone = text(payload.to);
    } else if (type === "return" && left !== null) {
      zone = text(payload.to) ?? left.from;
      left = null;
    }
  }
  return { zone, away: left !== null };
}
