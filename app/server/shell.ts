/** Set by the proxy on a request for a page that holds no data. */
export const SHELL_HEADER = "x-deft-shell";

/** Pages that hold no data: they are shown before anybody signs in, and kept on devices. */
export const isShell = (path: string): boolean => path === "/pen" || path === "/sign-in" || path === "/not-allowed";
