import ts from "typescript";

/** What one file is made of. */
export interface FileNumbers {
  readonly lines: number;
  /** Functions, components among them, of more than a hundred lines, by name. */
  readonly longFunctions: readonly { readonly name: string; readonly lines: number }[];
  /** Casts that say more than the compiler knows: `as const`, and an element read at an index from a typed array, are none. */
  readonly casts: number;
}

export const LONG_FUNCTION_LINES = 100;

const isFunction = (node: ts.Node): node is ts.FunctionLikeDeclaration =>
  ts.isFunctionDeclaration(node) || ts.isFunctionExpression(node) || ts.isArrowFunction(node) || ts.isMethodDeclaration(node);

function nameOf(node: ts.FunctionLikeDeclaration): string {
  if (node.name !== undefined && ts.isIdentifier(node.name)) return node.name.text;
  return ts.isVariableDeclaration(node.parent) && ts.isIdentifier(node.parent.name) ? node.parent.name.text : "one without a name";
}

/** `list[i] as number`: the index is known to be there, and nothing else is said. */
const isRead = ({ expression }: ts.AsExpression) => ts.isElementAccessExpression(expression);
const isConst = ({ type }: ts.AsExpression) => type.getText() === "const";

/** Counts a file of TypeScript. @example fileNumbers("a.ts", "const a = b as C;\n").casts // 1 */
export function fileNumbers(path: string, text: string): FileNumbers {
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const longFunctions: { name: string; lines: number }[] = [];
  let casts = 0;
  const visit = (node: ts.Node): void => {
    if (isFunction(node) && node.body !== undefined) {
      const lines =
        source.getLineAndCharacterOfPosition(node.getEnd()).line - source.getLineAndCharacterOfPosition(node.getStart()).line + 1;
      if (lines > LONG_FUNCTION_LINES) longFunctions.push({ name: nameOf(node), lines });
    }
    if (ts.isAsExpression(node) && !isConst(node) && !isRead(node)) casts++;
    node.forEachChild(visit);
  };
  visit(source);
  return { lines: text.split("\n").length - 1, longFunctions, casts };
}
