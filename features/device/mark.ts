/** How far a store's events reached when it last confirmed something to this device, and since which restore. */
export interface Mark {
  readonly epoch: string;
  readonly position: number;
}

const keyOf = (storeId: string) => `deft-mark-${storeId}`;

/** The mark of a store on this device, or null where it has none. */
export function readMark(storeId: string): Mark | null {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(keyOf(storeId)) ?? "null");
    if (typeof value === "object" && value !== null && "epoch" in value && "position" in value)
      return { epoch: String(value.epoch), position: Number(value.position) };
  } catch {
    // Storage is shut off or its content is not ours: the next confirmation sets the mark anew.
  }
  return null;
}

export function writeMark(storeId: string, mark: Mark): void {
  try {
    localStorage.setItem(keyOf(storeId), JSON.stringify(mark));
  } catch {
    // Without a mark a restored store is not noticed; the taps stay kept for thirty days.
  }
}

/** Whether a store holds less than it had confirmed: a backup was put in its place, by our command or by hand. */
export const wentBack = (mark: Mark | null, now: Mark): boolean =>
  mark !== null && (mark.epoch !== now.epoch || now.position < mark.position);
