import type { RefusedRow, TrialsMapping } from "@/core/formats";

/** What a file of trials or taps comes to. */
export interface BroughtWords {
  readonly sessions: number;
  readonly trials: number;
  readonly known: number;
  readonly refused: readonly RefusedRow[];
  readonly refusedCount: number;
  readonly unknownColumns: readonly string[];
  /** Horses the file names, and where their rows go. */
  readonly horses: readonly {
    readonly name: string;
    readonly to: { readonly horse: string } | "new" | "out";
    readonly sessions: number;
    readonly trials: number;
  }[];
  readonly leftOut: number;
}

/** How far an import has come, as the server says it. */
export interface ImportState {
  readonly id: string;
  readonly name: string;
  readonly size: number;
  readonly received: number;
  readonly step: "receiving" | "received" | "looking" | "looked" | "reading" | "bringing" | "done" | "failed" | "cancelled";
  readonly bytes: number;
  readonly events: number;
  readonly look: {
    readonly kind: "package" | "trials" | "events" | "table";
    readonly header: readonly string[];
    readonly sample: readonly (readonly string[])[];
    readonly mapping: TrialsMapping;
    readonly unknownOutcomes: readonly string[];
  } | null;
  readonly problem: string | null;
  /** What would come in, read and not written. */
  readonly dry: BroughtWords | null;
  readonly brought: BroughtWords | null;
  readonly merged: { readonly sessions: number; readonly events: number; readonly rows: number; readonly kept: number } | null;
}
