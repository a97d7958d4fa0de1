export function ensureChromium(): string;
export const CHROMIUM_ARGUMENTS: string[];
