/** Names under which a browser reaches the program on its own machine. */
const OWN_NAMES: readonly string[] = ["127.0.0.1", "localhost", "[::1]"];

/**
 * Whether a page is open on the machine the program runs on: there is no other computer to be out of reach.
 * @example onOwnMachine("127.0.0.1") // true
 */
export const onOwnMachine = (hostname: string): boolean => OWN_NAMES.includes(hostname);

/** Who does not answer, in words, as a page says it. */
export const noAnswerWords = (hostname = globalThis.location?.hostname ?? ""): string =>
  onOwnMachine(hostname) ? "Deft Tether is not running on this computer." : "The computer does not answer.";

/** What is done about it, in words. */
export const startItWords = (hostname = globalThis.location?.hostname ?? ""): string =>
  onOwnMachine(hostname) ? "Start it, then open this page again." : "Open it again when it does.";
