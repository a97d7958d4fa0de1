import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";

/**
 * Guessing made slow: so many failures from one place and so many from all
 * together, then a wait. A success costs nothing and forgives what was.
 */
export class Guesses {
  private readonly here: RateLimiterMemory;
  private readonly everywhere: RateLimiterMemory;

  constructor(limits: { readonly here: number; readonly everywhere: number; readonly minutes: number }) {
    const duration = limits.minutes * 60;
    this.here = new RateLimiterMemory({ points: limits.here, duration, blockDuration: duration });
    this.everywhere = new RateLimiterMemory({ points: limits.everywhere, duration, blockDuration: duration });
  }

  /** Seconds still to wait before another guess from there; 0 where it may be made. */
  async wait(from: string): Promise<number> {
    const [here, all] = await Promise.all([this.here.get(from), this.everywhere.get("all")]);
    const left = (found: RateLimiterRes | null) =>
      found !== null && found.remainingPoints <= 0 ? Math.ceil(found.msBeforeNext / 1000) : 0;
    return Math.max(left(here), left(all));
  }

  async failed(from: string): Promise<void> {
    const spent = (error: unknown) => {
      if (!(error instanceof RateLimiterRes)) throw error;
    };
    await this.here.consume(from).catch(spent);
    await this.everywhere.consume("all").catch(spent);
  }

  async succeeded(from: string): Promise<void> {
    await this.here.delete(from);
  }
}

const waitWords = (seconds: number) => (seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`);

export const tooMany = (seconds: number) => `Too many wrong tries. Wait ${waitWords(seconds)}, then try again.`;
