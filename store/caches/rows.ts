/** Rows of tables that are worked out from events alone; no model has them. */

/** A block of a session. */
export interface BlockRow {
  session_no: number;
  position: number;
  number: number;
  behaviour: string;
  ladder_no: number | null;
  version: number | null;
  rung: string;
  side: string | null;
  kind: string | null;
  seconds: number;
  n: number;
  met: number;
}

/** What a rung came to on one side, in one session. */
export interface RungSideSummaryRow {
  session_no: number;
  ladder_no: number;
  version: number;
  rung: number;
  side: string;
  n: number;
  met: number;
  met_at_lightest: number;
}
