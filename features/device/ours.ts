/** Stands on every answer of the program with the build it is of: a page in between has none. */
export const OURS_HEADER = "x-deft-tether";

/** Whether an answer is the program's own. What leads elsewhere is the browser's to follow and cannot be read. */
export const isOurs = ({ type, headers }: Pick<Response, "type" | "headers">): boolean =>
  type === "opaqueredirect" || headers.has(OURS_HEADER);
