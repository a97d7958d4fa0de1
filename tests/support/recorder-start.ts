import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { type LadderPart, ladderPart, type PartFacts, type RecorderToday, type StartSession, type StartYard } from "@/core/start";
import { allowanceOn } from "@/core/welfare";
import type { AtWork } from "@/features/work/types";
import { emptyDraft } from "./plan";

/** What a test says of a start; all else is an empty session on an empty ladder. */
export interface StartChange extends Partial<Omit<PartFacts, "circlingLeft">> {
  readonly session?: Partial<StartSession>;
  readonly yard?: Partial<StartYard>;
  readonly today?: Partial<RecorderToday>;
  /** Ladders beside the one it begins on. */
  readonly others?: readonly LadderPart[];
}

/** What a recorder is opened with. Its ladder is made as the recorder's own are. */
export function recorderStart({ session, yard, today, others = [], ...part }: StartChange = {}): AtWork {
  const first = ladderPart({
    ladder: { id: "ladder-1", version: 1, revision: 1 },
    behaviourInput: { ...EMPTY_BEHAVIOUR, name: "plate" },
    plan: emptyDraft().plan,
    next: { rung: 1, kind: "work", headline: "", reason: "", barred: null },
    circlingLeft: today?.circlingLeft ?? null,
    ...part,
  });
  return {
    session: {
      storeId: "s",
      id: "s",
      horse: { id: "h", name: "Bo" },
      handler: "",
      place: "",
      zones: [],
      battery: false,
      events: [],
      clocks: {},
      position: 0,
      begun: { id: "s", horse: "h", kind: "work", ladder: "ladder-1", person: null, place: null, start_rung: 1, kit: [] },
      ...session,
    },
    yard: { settings: DEFAULT_SETTINGS, people: [], ownSigns: [], ...yard },
    today: {
      allowance: allowanceOn([], "2026-06-01", null),
      cautions: [],
      heatLowerCelsius: 0,
      restingBreaths: null,
      used: [],
      doNext: null,
      weakerSide: null,
      circlingLeft: null,
      pinned: [],
      touches: [],
      chains: [],
      tries: [],
      unread: false,
      ...today,
    },
    parts: [first, ...others],
    first,
    part: first,
  };
}
