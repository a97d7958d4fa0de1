import type { DemoHorse } from "../horse";
import { BRACKWIDDEN } from "./brackwidden";
import { CORRIEMOOR } from "./corriemoor";
import { HARROWMINT } from "./harrowmint";
import { OSTREVINE } from "./ostrevine";
import { PELLAN_DUSK } from "./pellan-dusk";
import { QUILLOMAR } from "./quillomar";
import { SORRELAY_FEN } from "./sorrelay-fen";
import { TAMSELL_REED } from "./tamsell-reed";

/** The horses of the invented yard, each with a story of its own. */
export const DEMO_HORSES: readonly DemoHorse[] = [
  QUILLOMAR,
  OSTREVINE,
  BRACKWIDDEN,
  SORRELAY_FEN,
  PELLAN_DUSK,
  TAMSELL_REED,
  HARROWMINT,
  CORRIEMOOR,
];
