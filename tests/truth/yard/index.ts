export { DIALS, type Dials, STILL } from "./dials";
export { goings } from "./goings";
export { pastOf, season, type YardDay, type YardHorse } from "./season";
export { zoneSeason } from "./zones";
