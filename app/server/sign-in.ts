/** Cookies of the network: secure, this host's alone, and shut to scripts. The prefix makes the browser hold to that (RFC 6265bis). */
export const TOKEN_COOKIE = "__Host-deft";
export const DEVICE_COOKIE = "__Host-deft-device";

/** As long as an unused sign-in holds. */
const KEPT_SECONDS = 90 * 86_400;

export const secretCookie = (name: string, value: string): string =>
  `${name}=${value}; Path=/; Max-Age=${value === "" ? 0 : KEPT_SECONDS}; Secure; HttpOnly; SameSite=Strict`;

/** What a device calls itself, short enough to be told apart in a list. @example deviceWords("… Android 15 … Chrome/…") // "Chrome on Android" */
export function deviceWords(agent: string): string {
  const on = /iPhone/.test(agent)
    ? "iPhone"
    : /iPad/.test(agent)
      ? "iPad"
      : /Android/.test(agent)
        ? "Android"
        : /Windows/.test(agent)
          ? "Windows"
          : /Macintosh/.test(agent)
            ? "Mac"
            : /Linux/.test(agent)
              ? "Linux"
              : "a device";
  const browser = /Firefox|FxiOS/.test(agent)
    ? "Firefox"
    : /Edg/.test(agent)
      ? "Edge"
      : /Chrom|CriOS/.test(agent)
        ? "Chrome"
        : /Safari/.test(agent)
          ? "Safari"
          : "a browser";
  return `${browser} on ${on}`;
}
