import { FEWEST_TRIALS_TO_TELL, wilsonInterval } from "../../evidence";

const percent = (share: number) => Math.round(share * 100);

/** "8 of 10, could be anywhere from 49 to 94 %", or that they are too few to tell. */
export function shareSentence(met: number, of: number): string {
  const interval = wilsonInterval(met, of);
  if (interval === null) return "No trials yet.";
  if (of < FEWEST_TRIALS_TO_TELL) return `${met} of ${of}: too few to tell.`;
  return `${met} of ${of}, could be anywhere from ${percent(interval[0])} to ${percent(interval[1])} %.`;
}
