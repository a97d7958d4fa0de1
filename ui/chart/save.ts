import { guardText } from "@/core/formats/text-cell";
import type { ChartSpec } from "./spec";

/** Names a file of what it shows, with nothing a file system minds. */
const fileName = (name: string) => name.replace(/[^\p{L}\p{N}. -]+/gu, "").trim() || "chart";

/** Hands a text or a picture over as a file. */
export function saveFile(content: BlobPart, name: string, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = fileName(name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A chart as it is drawn, on paper of its own with its title, as a PNG. */
export function savePicture(canvas: HTMLCanvasElement | null, title: string): void {
  if (canvas === null) return;
  const style = getComputedStyle(document.documentElement);
  const scale = canvas.width / Math.max(1, canvas.clientWidth);
  const head = 34 * scale;
  const paper = document.createElement("canvas");
  paper.width = canvas.width + 24 * scale;
  paper.height = canvas.height + head + 12 * scale;
  const draw = paper.getContext("2d");
  if (draw === null) return;
  draw.fillStyle = style.getPropertyValue("--paper");
  draw.fillRect(0, 0, paper.width, paper.height);
  draw.fillStyle = style.getPropertyValue("--ink");
  draw.font = `bold ${17 * scale}px "Bricolage Grotesque Variable", sans-serif`;
  draw.fillText(title, 12 * scale, 23 * scale);
  draw.drawImage(canvas, 12 * scale, head);
  paper.toBlob((blob) => blob !== null && saveFile(blob, `${title}.png`, "image/png"), "image/png");
}

const text = (value: string | number | null | undefined) =>
  value === null || value === undefined ? "" : typeof value === "number" ? String(value) : guardText(value);

/** A chart's numbers as a file: one row a point, each line with the ends of its interval where it has one. */
export async function chartCsv({ points, series, x }: ChartSpec): Promise<string> {
  // Only who saves a file loads what writes it.
  const { writeCsv } = await import("@/core/formats/csv");
  const heads = series.flatMap(({ name, low }) => (low === undefined ? [name] : [name, `${name}, low`, `${name}, high`]));
  const rows = points.map((point, i) => [
    x.kind === "day" ? new Date(point.x).toISOString() : point.x,
    ...series.flatMap(({ values, low, high }) => (low === undefined ? [values[i]] : [values[i], low[i], high?.[i]])),
    (point.marks ?? []).join("; "),
  ]);
  return writeCsv(
    [x.title, ...heads, "what was special"],
    rows.map((row) => row.map(text)),
  );
}
