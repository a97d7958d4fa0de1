import { emptyPack, type HorsePack, type YardFacts } from "@/core/pack";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { emptyDraft } from "./plan";

/** A yard of which little is said. */
export const plainYard = (change: Partial<YardFacts> = {}): YardFacts => ({
  timeZone: "UTC",
  settings: DEFAULT_SETTINGS,
  people: [{ id: "person-1", name: "Ida" }],
  ownSigns: [],
  places: [],
  kit: [],
  ...change,
});

/** A horse with one ladder nobody has worked. */
export const plainPack = (change: Partial<HorsePack> = {}): HorsePack => ({
  ...emptyPack({ id: "h", name: "Tarn", apart: "", sample: false, away: null, bornDay: null, birthYear: 2015, restingBreaths: null }),
  ladders: [
    {
      id: "ladder-1",
      version: 1,
      revision: 1,
      behaviour: { ...EMPTY_BEHAVIOUR, name: "plate" },
      plan: emptyDraft().plan,
      involves: [],
      cautions: [],
      trials: [],
      carried: [],
    },
  ],
  ...change,
});
