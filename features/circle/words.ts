/** The two hands in words. */
export const SIDE_WORDS = { L: "left", R: "right" } as const;

/** Minutes as they are said: a tenth under ten, whole above. */
export const minutesWords = (minutes: number): string => `${minutes >= 10 ? Math.round(minutes) : Math.round(minutes * 10) / 10} min`;
