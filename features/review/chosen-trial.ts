/** Said on the page when a trial is pressed, so that the panel that puts things right opens on it. */
export const CHOOSE_TRIAL = "deft-choose-trial";

/** Opens a trial where it can be put right. */
export const chooseTrial = (number: number): boolean => window.dispatchEvent(new CustomEvent<number>(CHOOSE_TRIAL, { detail: number }));
