export { DIALS, type Dials, STILL } from "./dials";
export { goings } from "./goings";
export { pastOf, season, type YardDay, type YardHorse } from "./season";
export { signSeason, wrongsAndSigns } from "./signs";
export { learnedTwice, steppedUp, TRIED, triedBoth } from "./steps";
export { zoneSeason } from "./zones";
