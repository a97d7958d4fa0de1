import { CLOCK_JUMP_MS } from "@/core/clock-jump";

/** The two clocks of a device, in milliseconds. */
export interface DeviceClocks {
  readonly wallMs: number;
  readonly monoMs: number;
}

/** The server's clock is asked for so long whether a jump ahead was this one being set; no answer means it slept. */
const DOUBT_MS = 1500;

/**
 * The wall clock of this page, held where somebody sets it while the page runs.
 * A jump back is a clock that was set. A jump ahead is a device that slept, its
 * monotonic clock standing still meanwhile: for certain where the page was
 * hidden, as it is on a locked phone; otherwise whoever can be asked (the
 * server's clock) says which, and until then the clock is held.
 */
export class SteadyClock {
  private anchorMs: number;
  private correctionMs = 0;
  private hidden = false;
  /** Asked after a jump ahead in sight, with the clock held, whether it was set. */
  doubt: (() => Promise<boolean>) | null = null;

  constructor(private readonly read: () => DeviceClocks) {
    const { wallMs, monoMs } = read();
    this.anchorMs = wallMs - monoMs;
  }

  /** The page is hidden from here on: the device may sleep. */
  hide(): void {
    this.hidden = true;
  }

  /** @example new SteadyClock(read).nowMs() // as Date.now(), through a clock that is set */
  nowMs(): number {
    const { wallMs, monoMs } = this.read();
    const jump = wallMs - monoMs - this.anchorMs;
    if (Math.abs(jump) > CLOCK_JUMP_MS) {
      this.anchorMs += jump;
      if (jump < 0 || !this.hidden) this.correctionMs -= jump;
      if (jump > 0 && !this.hidden) void this.ask(jump);
    }
    this.hidden &&= typeof document !== "undefined" && document.hidden;
    return wallMs + this.correctionMs;
  }

  private async ask(jumpMs: number): Promise<void> {
    const late = new Promise<boolean>((resolve) => setTimeout(() => resolve(false), DOUBT_MS));
    const set = await Promise.race([this.doubt?.().catch(() => false) ?? false, late]);
    if (!set) this.correctionMs += jumpMs;
  }
}

const clock = new SteadyClock(() => ({ wallMs: Date.now(), monoMs: performance.now() }));

if (typeof document !== "undefined") document.addEventListener("visibilitychange", () => document.hidden && clock.hide());

/** This page's wall clock in milliseconds since 1970, held through a clock that is set. */
export const steadyNowMs = (): number => clock.nowMs();

/** Whom to ask after a jump forward. */
export const askOfJumps = (doubt: SteadyClock["doubt"]): void => {
  clock.doubt = doubt;
};
