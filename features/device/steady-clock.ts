/** A jump of the wall clock against the monotonic one by more than this was not the clocks' own drift; the same bound as core's. */
const JUMP_MS = 1500;

/** The two clocks of a device, in milliseconds. */
export interface DeviceClocks {
  readonly wallMs: number;
  readonly monoMs: number;
}

/**
 * The wall clock of this page, held where somebody sets it while the page runs.
 * A jump back is a clock that was set. A jump forward is a device that slept,
 * its monotonic clock standing still meanwhile, unless whoever can be asked
 * (the server's clock) says that this one was set.
 */
export class SteadyClock {
  private anchorMs: number;
  private correctionMs = 0;
  /** Asked after a jump forward whether the clock was set by so much; answers later. */
  doubt: ((jumpMs: number) => Promise<boolean>) | null = null;

  constructor(private readonly read: () => DeviceClocks) {
    const { wallMs, monoMs } = read();
    this.anchorMs = wallMs - monoMs;
  }

  /** @example new SteadyClock(read).nowMs() // as Date.now(), through a clock that is set */
  nowMs(): number {
    const { wallMs, monoMs } = this.read();
    const jump = wallMs - monoMs - this.anchorMs;
    if (Math.abs(jump) > JUMP_MS) {
      this.anchorMs += jump;
      if (jump < 0) this.correctionMs -= jump;
      else
        this.doubt?.(jump).then(
          (set) => {
            if (set) this.correctionMs -= jump;
          },
          // Nobody answers: then it slept.
          () => undefined,
        );
    }
    return wallMs + this.correctionMs;
  }
}

const clock = new SteadyClock(() => ({ wallMs: Date.now(), monoMs: performance.now() }));

/** This page's wall clock in milliseconds since 1970, held through a clock that is set. */
export const steadyNowMs = (): number => clock.nowMs();

/** Whom to ask after a jump forward. */
export const askOfJumps = (doubt: SteadyClock["doubt"]): void => {
  clock.doubt = doubt;
};
