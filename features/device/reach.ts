/** Every request is given up after this time: what swallows bytes must not stop the sending. The server answers a held write after 5 s. */
export const GIVE_UP_MS = 10_000;

export const NO_ANSWER = "The server does not answer.";

/** Asks the server, for so long and no longer. @throws with words for the status line. */
export async function reach(url: string, init?: RequestInit, giveUpMs = GIVE_UP_MS): Promise<Response> {
  try {
    return await fetch(url, { ...init, cache: "no-store", signal: AbortSignal.timeout(giveUpMs) });
  } catch {
    throw new Error(NO_ANSWER);
  }
}

/** The body of an answer, which may stop coming half way. */
export async function bodyOf<T>(response: Response): Promise<T | null> {
  try {
    return (await response.json()) as T;
  } catch {
    return null;
  }
}
