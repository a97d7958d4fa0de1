import * as yup from "yup";

/** One column of an open file: its name, its type, and whether a row may leave it empty. */
export interface Column {
  readonly name: string;
  readonly type: "text" | "integer" | "number" | "time" | "choice";
  readonly required?: boolean;
  readonly least?: number;
  /** Least value that is itself not allowed (block_s must be above 0). */
  readonly above?: number;
  readonly most?: number;
  readonly choices?: readonly string[];
}

const ISO_WITH_OFFSET = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}([.,]\d+)?)?(Z|[+-]\d{2}(:?\d{2})?)$/;
const INTEGER = /^[+-]?\d+$/;
const DECIMAL = /^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d+)?$/;

/**
 * Milliseconds since 1970 of an ISO 8601 time with its offset, or null where it is not one.
 * @example parseIsoTime("2026-05-01T10:00:00Z") // 1777629600000
 */
export function parseIsoTime(text: string): number | null {
  if (!ISO_WITH_OFFSET.test(text)) return null;
  const day = Number(text.slice(8, 10));
  const ms = Date.parse(
    text
      .replace(",", ".")
      .replace(/([+-]\d{2})(\d{2})?$/, (_, h: string, m?: string) => `${h}:${m ?? "00"}`)
      .replace(/(:\d{2}):00$/, "$1"),
  );
  const fallback = Number.isNaN(ms) ? Date.parse(text) : ms;
  if (Number.isNaN(fallback)) return null;
  // Date.parse takes 31 April for 1 May; a file that says so is wrong.
  const lastDay = new Date(Date.UTC(Number(text.slice(0, 4)), Number(text.slice(5, 7)), 0)).getUTCDate();
  return day >= 1 && day <= lastDay ? fallback : null;
}

/**
 * Why a cell breaks its column's type, or null where it is good. Empty cells are judged by `required` alone.
 * @example cellProblem({ name: "t_s", type: "number" }, "0") // null
 */
export function cellProblem(column: Column, cell: string): string | null {
  if (cell === "") return column.required ? "is missing" : null;
  switch (column.type) {
    case "text":
      return null;
    case "time":
      return parseIsoTime(cell) === null ? "is not an ISO 8601 time with offset" : null;
    case "choice":
      return column.choices?.includes(cell) ? null : `is not one of ${column.choices?.join(", ")}`;
    case "integer":
      if (!INTEGER.test(cell)) return "is not a whole number";
      break;
    case "number":
      if (!DECIMAL.test(cell)) return "is not a number";
      break;
  }
  const value = Number(cell);
  if (!Number.isFinite(value)) return "is not a number";
  if (column.least !== undefined && value < column.least) return `is below ${column.least}`;
  if (column.above !== undefined && value <= column.above) return `is not above ${column.above}`;
  if (column.most !== undefined && value > column.most) return `is above ${column.most}`;
  return null;
}

/**
 * The same rules as a Yup schema of a row of text cells, for forms and small imports.
 * @example rowSchema(columns)
 */
export function rowSchema(columns: readonly Column[]): yup.ObjectSchema<Record<string, string>> {
  const shape: Record<string, yup.StringSchema> = {};
  for (const column of columns) {
    let cell = yup.string();
    if (column.required) cell = cell.required(`${column.name} is missing`);
    cell = cell.test("column", `${column.name} is wrong`, (value, context) => {
      const problem = value === undefined ? null : cellProblem(column, value);
      return problem === null || context.createError({ message: `${column.name} ${problem}` });
    });
    shape[column.name] = cell;
  }
  return yup.object(shape) as unknown as yup.ObjectSchema<Record<string, string>>;
}

/** A row that was refused: its physical line (the header is 1), the column and why. */
export interface RefusedRow {
  readonly line: number;
  readonly column: string;
  readonly reason: string;
}
