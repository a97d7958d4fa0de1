import type { Outcome } from "../evidence/group";

/** How one button says three things. Milliseconds. */
export const ONE_BUTTON = { doubleWithinMs: 380, longFromMs: 650 } as const;

/**
 * Reads one button: a press is got it, two quick ones a try, a long one no
 * answer. A press waits a moment for its second; a long one is known while it
 * is still held.
 */
export class OneButton {
  private downMs: number | null = null;
  private waitingSinceMs: number | null = null;
  private longSaid = false;

  /** The button went down. Repeats of a held button are passed over. */
  down(ms: number): Outcome | null {
    if (this.downMs !== null) return null;
    const late = this.elapsed(ms);
    this.downMs = ms;
    this.longSaid = false;
    return late;
  }

  /** The button came up. */
  up(ms: number): Outcome | null {
    if (this.downMs === null) return null;
    const held = ms - this.downMs;
    this.downMs = null;
    if (this.longSaid) return null;
    if (held >= ONE_BUTTON.longFromMs) {
      this.waitingSinceMs = null;
      return "refused";
    }
    if (this.waitingSinceMs !== null) {
      this.waitingSinceMs = null;
      return "try";
    }
    this.waitingSinceMs = ms;
    return null;
  }

  /** Time went by: what is settled by it, or null. */
  elapsed(ms: number): Outcome | null {
    if (this.downMs !== null && !this.longSaid && ms - this.downMs >= ONE_BUTTON.longFromMs) {
      this.longSaid = true;
      this.waitingSinceMs = null;
      return "refused";
    }
    if (this.downMs === null && this.waitingSinceMs !== null && ms - this.waitingSinceMs >= ONE_BUTTON.doubleWithinMs) {
      this.waitingSinceMs = null;
      return "met";
    }
    return null;
  }

  /** When to look again, in milliseconds of the same clock, or null where nothing is open. */
  nextLookMs(): number | null {
    if (this.downMs !== null && !this.longSaid) return this.downMs + ONE_BUTTON.longFromMs;
    return this.waitingSinceMs === null ? null : this.waitingSinceMs + ONE_BUTTON.doubleWithinMs;
  }
}
