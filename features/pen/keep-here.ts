import { install } from "../device/install";
import { keepLastHorse } from "./keep";
import { refreshKept } from "./refresh";

/** Keeps the pen on this device, and what it needs to know, so that it opens with no server. Fetched after a page has come alive. */
export async function keepHere(): Promise<void> {
  if (!(await install())) return;
  const [, inHand] = /^\/horses\/([^/]+)\//.exec(window.location.pathname) ?? [];
  const horse = inHand === undefined || inHand === "new" ? null : inHand;
  if (horse !== null) keepLastHorse(horse);
  await refreshKept(horse).catch(() => undefined);
}
