import type { HorseInput } from "@/core/schemas";

/** A horse of which little is said. */
export const PLAIN_HORSE: HorseInput = {
  name: "Tarn",
  born_day: null,
  birth_year: 2015,
  sex: null,
  kind: "",
  height_cm: 150,
  mass_kg: 430,
  history: "",
  triggers: "",
  preferred_reinforcers: "",
  resting_breaths_per_min: null,
  resting_heart_per_min: null,
};
