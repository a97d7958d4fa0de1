import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import ts from "typescript";
import { circlesIn } from "./rooms";

const FOLDERS = ["app", "core", "demo", "features", "library", "network", "store", "ui", "workers"];

const filesOfProgram = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter((file) => /\.tsx?$/.test(file) && !/(\.test\.tsx?|probe-[^/]*)$/.test(file))
    .map((file) => join(folder, file));

/** Whether an import or export gives types alone: it is gone when the program runs. */
function isOfTypes(node: ts.ImportDeclaration | ts.ExportDeclaration): boolean {
  if (ts.isExportDeclaration(node)) {
    const { exportClause } = node;
    return (
      node.isTypeOnly ||
      (exportClause !== undefined && ts.isNamedExports(exportClause) && exportClause.elements.every((one) => one.isTypeOnly))
    );
  }
  const { importClause } = node;
  if (importClause === undefined) return false;
  const { namedBindings } = importClause;
  const named = namedBindings !== undefined && ts.isNamedImports(namedBindings) && namedBindings.elements.every((one) => one.isTypeOnly);
  return importClause.isTypeOnly || (importClause.name === undefined && named);
}

const asFile = (path: string) =>
  [path, `${path}.ts`, `${path}.tsx`, `${path}/index.ts`].find((one) => existsSync(one) && statSync(one).isFile());

/** The files whose values a text uses when it is loaded. @example valuesUsed("core/a.ts", 'import "./b"') // ["core/b.ts"] */
export function valuesUsed(file: string, text: string): string[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  return source.statements.flatMap((node) => {
    if (!(ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) || isOfTypes(node)) return [];
    const spec = node.moduleSpecifier;
    if (spec === undefined || !ts.isStringLiteral(spec) || !/^(@\/|\.)/.test(spec.text)) return [];
    return asFile(spec.text.startsWith("@/") ? spec.text.slice(2) : relative(".", join(dirname(file), spec.text))) ?? [];
  });
}

/** Files that need each other's values to be loaded, each such circle as a list. */
export function valueCircles(): string[][] {
  const rooms = FOLDERS.flatMap(filesOfProgram);
  const uses = new Map(rooms.map((file) => [file, valuesUsed(file, readFileSync(file, "utf8"))]));
  // What uses nothing, or is used by nobody, is in no circle: taken away until only circles and what lies between them are left.
  for (let before = -1; before !== uses.size; ) {
    before = uses.size;
    const used = new Set([...uses.values()].flat());
    for (const [file, to] of uses) if (!used.has(file) || !to.some((one) => uses.has(one))) uses.delete(file);
  }
  const left = [...uses.keys()];
  return circlesIn({
    rooms: left,
    arrows: left.flatMap((from) => (uses.get(from) ?? []).filter((to) => uses.has(to)).map((to) => [from, to] as const)),
  });
}
