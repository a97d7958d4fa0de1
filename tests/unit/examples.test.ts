import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import { describe, expect, it } from "vitest";

/** Every file of core, its tests aside. */
function filesOf(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return filesOf(path);
    return /\.ts$/.test(name) && !/\.test\.ts$/.test(name) ? [path] : [];
  });
}

/** The functions a file gives to others, each with what its docstring says. */
function exportedFunctions(path: string): { readonly name: string; readonly doc: string }[] {
  const source = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  return source.statements.flatMap((node) => {
    if (!ts.canHaveModifiers(node) || !ts.getModifiers(node)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)) return [];
    const doc = ts
      .getJSDocCommentsAndTags(node)
      .map((one) => one.getText())
      .join("\n");
    if (ts.isFunctionDeclaration(node)) return node.body === undefined ? [] : [{ name: node.name?.text ?? "", doc }];
    if (!ts.isVariableStatement(node)) return [];
    return node.declarationList.declarations.flatMap(({ name, initializer }) =>
      initializer !== undefined && ts.isArrowFunction(initializer) ? [{ name: name.getText(), doc }] : [],
    );
  });
}

describe("a function core gives to others", () => {
  const all = filesOf("core").flatMap((path) => exportedFunctions(path).map((one) => ({ ...one, at: `${path}: ${one.name}` })));
  it("says what it does", () => {
    expect(all.length).toBeGreaterThan(600);
    expect(all.filter(({ doc }) => doc === "").map(({ at }) => at)).toEqual([]);
  });
  it("shows one call of it", () => {
    expect(all.filter(({ doc }) => !doc.includes("@example")).map(({ at }) => at)).toEqual([]);
  });
});
