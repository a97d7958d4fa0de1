/** The themes a person can pin; without one the system decides. */
export const THEMES = ["desk", "field", "barn"] as const;
export type Theme = (typeof THEMES)[number];

export const THEME_COOKIE = "deft-theme";

export const isTheme = (value: string | undefined): value is Theme => THEMES.some((theme) => theme === value);
