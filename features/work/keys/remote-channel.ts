/** A key of the simulated remote, as a real one would send it. */
export interface RemoteKey {
  readonly key: string;
  readonly down: boolean;
}

const NAME = "deft-remote";

/** Sends keys from the remote's window; null where the browser has no channel between windows. */
export function remoteSender(): { send: (key: RemoteKey) => void; close: () => void } | null {
  if (typeof BroadcastChannel === "undefined") return null;
  const channel = new BroadcastChannel(NAME);
  return { send: (key) => channel.postMessage(key), close: () => channel.close() };
}

/** Lets the keys of a remote arrive in this window as presses of its keyboard. @returns what ends it. */
export function listenToRemote(): () => void {
  if (typeof BroadcastChannel === "undefined") return () => undefined;
  const channel = new BroadcastChannel(NAME);
  channel.onmessage = ({ data }: MessageEvent<RemoteKey>) => {
    if (typeof data?.key !== "string") return;
    window.dispatchEvent(new KeyboardEvent(data.down ? "keydown" : "keyup", { key: data.key, bubbles: true, cancelable: true }));
  };
  return () => channel.close();
}
