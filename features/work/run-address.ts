/** Names the chain a session is begun for in the recorder's address. */
export const CHAIN_KEY = "run";

/** Where a session is worked with a chain's run open. @example runAddress("h", "s", "c") // "/horses/h/work/s?run=c" */
export const runAddress = (horse: string, session: string, chain: string): string =>
  `/horses/${horse}/work/${session}?${CHAIN_KEY}=${encodeURIComponent(chain)}`;
