import * as yup from "yup";
import { flagSchema, record } from "@/core/checks/common";
import type { TrialsMapping } from "@/core/formats";
import { takeAct, takeForm } from "../../../server/form-route";
import { giveUp, IMPORT_PIECE_BYTES, importState, startImport, takePiece } from "../../../server/imports";
import { answer, json, problem, readBytes } from "../../../server/respond";
import { getStore } from "../../../server/store";

type Context = { params: Promise<{ id: string }> };

const words = yup
  .mixed<Record<string, string>>()
  .test("words", "The columns cannot be read.", (value) => {
    if (value == null) return true;
    return (
      typeof value === "object" &&
      Object.entries(value).length <= 60 &&
      Object.entries(value).every(([key, word]) => key.length <= 200 && typeof word === "string" && word.length <= 200)
    );
  })
  .nullable()
  .default(null);

const startSchema = record({
  horse: yup.string().nullable().default(null),
  horses: words,
  columns: words,
  outcomes: words,
  dry: flagSchema("Look it through").default(false),
}).required();

export const GET = async (request: Request, { params }: Context) => {
  const { id } = await params;
  return answer(request, async () => json(importState(id)));
};

/** The next piece of the file. */
export async function PUT(request: Request, { params }: Context) {
  const { id } = await params;
  return answer(request, async () => {
    const at = Number(new URL(request.url).searchParams.get("at"));
    const piece = await readBytes(request, IMPORT_PIECE_BYTES);
    if (piece === null) return problem(413, "Too large", "Send it in pieces of 4 MB.");
    if (!Number.isInteger(at) || at < 0) return problem(400, "Not taken", "Where the piece begins is missing.");
    return json(await takePiece(await getStore(), id, at, piece));
  });
}

/** Takes it in. */
export async function POST(request: Request, { params }: Context) {
  const { id } = await params;
  return takeForm(request, startSchema, async (store, { horse, horses, columns, outcomes, dry }) =>
    startImport(store, id, {
      horse,
      byName: horses ?? {},
      mapping: columns === null ? null : ({ columns, outcomes: outcomes ?? {} } as TrialsMapping),
      dry,
    }),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  const { id } = await params;
  return takeAct(request, async () => giveUp(id));
}
