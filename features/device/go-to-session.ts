import type { useWay } from "@/ui/way";
import type { Begun } from "./begin-session";
import { inPen } from "./pen-place";

/**
 * Goes to a session that was begun. One that lies on this device alone is
 * opened from it: the server's page would not know it yet, and slow is not gone.
 */
export function goToSession(way: ReturnType<typeof useWay>, { where }: Extract<Begun, { readonly ok: true }>, path: string): void {
  const here = where === "device" && !way.pen ? inPen(path) : null;
  if (here === null) way.push(path);
  else window.location.assign(here);
}
