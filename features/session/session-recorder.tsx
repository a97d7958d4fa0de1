import type { OpenedSession } from "@/core/start";
import { CircleRecorder } from "../circle/circle-recorder";
import { WatchRecorder } from "../observe/watch-recorder";
import { Recorder } from "../work/recorder";

/**
 * The recorder of a session, by its kind. Not marked as the browser's own: on
 * the server's page only the one that is needed is sent.
 */
export function SessionRecorder({ opened, chain = null }: { opened: OpenedSession; chain?: string | null }) {
  if (opened.recorder === "work") return <Recorder packed={opened.packed} chain={chain} />;
  if (opened.recorder === "circle") return <CircleRecorder start={opened.start} today={opened.today} />;
  return <WatchRecorder {...opened} />;
}
