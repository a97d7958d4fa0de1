import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { allowanceOn } from "@/core/welfare";
import type { RecorderStart } from "@/features/work/types";
import { emptyDraft } from "./plan";

/** What a recorder is opened with: an empty session on an empty ladder, but for what is said. */
export const recorderStart = (change: Partial<RecorderStart> = {}): RecorderStart => ({
  storeId: "s",
  sessionId: "s",
  horse: { id: "h", name: "Bo" },
  handler: "",
  place: "",
  battery: false,
  ladders: [],
  ladderId: "ladder-1",
  version: 1,
  revision: 1,
  behaviour: "plate",
  behaviourInput: { ...EMPTY_BEHAVIOUR, name: "plate" },
  plan: emptyDraft().plan,
  next: { rung: 1, kind: "work", headline: "", reason: "", barred: null },
  earlier: [],
  carried: [],
  planCautions: [],
  allowance: allowanceOn([], "2026-06-01", null),
  cautions: [],
  zones: [],
  pinned: [],
  ownSigns: [],
  chains: [],
  tries: [],
  people: [],
  touches: [],
  events: [],
  clocks: {},
  position: 0,
  silenceMinutes: 20,
  doNext: null,
  used: [],
  restingBreaths: null,
  heatLowerCelsius: 0,
  weakerSide: null,
  wordSettings: DEFAULT_SETTINGS,
  begun: { id: "s", horse: "h", kind: "work", ladder: "ladder-1", person: null, place: null, start_rung: 1, kit: [] },
  ...change,
});
