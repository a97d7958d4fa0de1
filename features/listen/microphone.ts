import type { MarkTemplate, TaughtSound } from "@/core/hearing";

/** A marker heard, with how long ago. */
export interface Heard {
  readonly agoMs: number;
  readonly alike: number;
}

/** Why the microphone cannot be had, in words. */
export class NoMicrophone extends Error {}

/** The phone's own cleaning of speech would clean the marker away. */
const RAW_SOUND = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

/**
 * One page of a device listens at a time, so that a mark is logged once.
 * @returns what lets another one listen.
 * @throws NoMicrophone where another page listens already.
 */
function onlyListener(): Promise<() => void> {
  if (navigator.locks === undefined) return Promise.resolve(() => undefined);
  return new Promise((resolve, reject) => {
    void navigator.locks.request("deft-listens", { ifAvailable: true }, (lock) => {
      if (lock === null) return reject(new NoMicrophone("Another page of this device listens already: a mark is logged once."));
      return new Promise<void>((done) => resolve(done));
    });
  });
}

/**
 * Opens the microphone and listens on the audio thread, for a taught marker or
 * for sounds to be taught by. Nothing is recorded.
 * @returns what stops it.
 * @throws NoMicrophone with the reason in words.
 */
export async function listen(
  template: MarkTemplate | null,
  told: {
    readonly onHeard?: (heard: Heard) => void;
    readonly onSound?: (sound: TaughtSound) => void;
    /** Whether it hears: a phone that is locked, or a call, stops it. */
    readonly onListening?: (listening: boolean) => void;
  },
): Promise<() => void> {
  if (navigator.mediaDevices === undefined || typeof AudioWorkletNode === "undefined")
    throw new NoMicrophone("This browser lends the microphone only over a secured line, or not at all.");
  const free = template === null ? () => undefined : await onlyListener();
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({ audio: RAW_SOUND });
  } catch (error) {
    free();
    const refused = error instanceof DOMException && error.name === "NotAllowedError";
    throw new NoMicrophone(
      refused ? "The microphone was not allowed. Allow it in the browser's settings of this page." : "No microphone was found.",
    );
  }
  const context = new AudioContext({ latencyHint: "interactive" });
  // A locked phone and a call stop the sound; with the page it comes back.
  const again = () => {
    if (document.visibilityState === "visible" && context.state !== "closed") void context.resume().catch(() => undefined);
  };
  document.addEventListener("visibilitychange", again);
  const stop = () => {
    free();
    document.removeEventListener("visibilitychange", again);
    for (const track of stream.getTracks()) track.stop();
    void context.close().catch(() => undefined);
  };
  try {
    await context.audioWorklet.addModule("/listen.js");
    const node = new AudioWorkletNode(context, "mark-listener", {
      numberOfInputs: 1,
      numberOfOutputs: 0,
      channelCount: 1,
      processorOptions: { template },
    });
    const inputSeconds = stream.getAudioTracks()[0]?.getSettings() as { latency?: number } | undefined;
    node.port.onmessage = ({ data }: MessageEvent<{ heard?: { atSeconds: number; alike: number }; sound?: TaughtSound }>) => {
      if (data.heard !== undefined) {
        const { atSeconds, alike } = data.heard;
        const agoMs = Math.max(0, (context.currentTime - atSeconds + (inputSeconds?.latency ?? 0)) * 1000);
        told.onHeard?.({ agoMs, alike });
      }
      if (data.sound !== undefined) told.onSound?.(data.sound);
    };
    context.createMediaStreamSource(stream).connect(node);
    await context.resume();
    context.onstatechange = () => {
      if (context.state !== "closed") told.onListening?.(context.state === "running");
    };
  } catch {
    stop();
    throw new NoMicrophone("Listening could not begin in this browser.");
  }
  return stop;
}
