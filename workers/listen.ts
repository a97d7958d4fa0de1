import { isTemplate, MarkListener, TaughtSounds } from "../core/hearing";

/** What the audio thread gives a processor; the libraries of types describe pages alone. */
declare const sampleRate: number;
declare const currentFrame: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: unknown): void;

/**
 * Listens on the audio thread: for the marker that was taught, or for sounds
 * to be taught by. Nothing of the sound leaves it but the moment and how alike
 * it was, and while teaching what stands out of the noise.
 */
class MarkProcessor extends AudioWorkletProcessor {
  private readonly listener: MarkListener | null;
  private readonly sounds: TaughtSounds | null;
  private firstFrame = -1;

  constructor({ processorOptions }: { readonly processorOptions?: { readonly template?: unknown } }) {
    super();
    const template = processorOptions?.template;
    this.listener = isTemplate(template) ? new MarkListener(template, sampleRate) : null;
    this.sounds = this.listener === null ? new TaughtSounds(sampleRate) : null;
  }

  process(inputs: readonly (readonly Float32Array[])[]): boolean {
    const samples = inputs[0]?.[0];
    if (samples === undefined) return true;
    if (this.firstFrame < 0) this.firstFrame = currentFrame;
    for (const { atSample, alike } of this.listener?.push(samples) ?? [])
      this.port.postMessage({ heard: { atSeconds: (this.firstFrame + atSample) / sampleRate, alike } });
    for (const sound of this.sounds?.push(samples) ?? []) this.port.postMessage({ sound });
    return true;
  }
}

registerProcessor("mark-listener", MarkProcessor);
