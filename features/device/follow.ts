import type { SessionNews } from "@/core/pack";

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 8000;
/** The server lets itself be heard every fifteen seconds; a line that is silent for longer is dead, whatever the browser thinks. */
const SILENT_MS = 40_000;

/**
 * Follows a session: told of what is new right after it was saved, from a
 * position on, counted since a restore, so that a line that broke misses nothing. A hidden page
 * listens no longer and catches up when it is seen again.
 * @returns how to stop.
 */
export function followSession(
  session: string,
  after: () => { readonly position: number; readonly epoch: string | null },
  told: (news: SessionNews) => void,
): () => void {
  let source: EventSource | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let silence: ReturnType<typeof setTimeout> | null = null;
  let pauseMs = FIRST_PAUSE_MS;

  const close = () => {
    source?.close();
    source = null;
    for (const one of [timer, silence]) if (one !== null) clearTimeout(one);
    timer = null;
    silence = null;
  };
  const again = () => {
    close();
    // Whoever lost the server at one moment does not come back at one moment.
    timer = setTimeout(open, pauseMs * (0.6 + 0.4 * Math.random()));
    pauseMs = Math.min(LONGEST_PAUSE_MS, pauseMs * 2);
  };
  const heard = () => {
    pauseMs = FIRST_PAUSE_MS;
    if (silence !== null) clearTimeout(silence);
    silence = setTimeout(again, SILENT_MS);
  };
  const open = () => {
    close();
    if (document.hidden) return;
    const { position, epoch } = after();
    source = new EventSource(
      `/api/sessions/${session}/live?after=${position}${epoch === null ? "" : `&epoch=${encodeURIComponent(epoch)}`}`,
    );
    silence = setTimeout(again, SILENT_MS);
    source.addEventListener("beat", heard);
    source.addEventListener("news", (event) => {
      heard();
      told(JSON.parse(event.data as string) as SessionNews);
    });
    source.addEventListener("error", again);
  };
  const seen = () => {
    if (document.hidden) close();
    else if (source === null) open();
  };
  document.addEventListener("visibilitychange", seen);
  window.addEventListener("online", open);
  open();
  return () => {
    document.removeEventListener("visibilitychange", seen);
    window.removeEventListener("online", open);
    close();
  };
}
