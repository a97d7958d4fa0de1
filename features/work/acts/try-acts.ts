import type { DueTry } from "@/core/experiment";
import { sideAsked } from "@/core/ladder";
import type { BeginActs } from "./begin-acts";
import { type Pen, refuse } from "./pen";

/** Blocks of an experiment. */
export function tryActs(pen: Pen, { begin }: Pick<BeginActs, "begin">) {
  const { now, setHint } = pen;

  /** The block that is due of an experiment, on its own ladder and rung. */
  const tryBoth = ({ of, tries, way }: DueTry) => {
    const { start, block } = now();
    const part = of.ladder === start.part.ladderId ? undefined : start.parts.find(({ ladderId }) => ladderId === of.ladder);
    const on = part ?? start.part;
    const { noFood } = start.today.allowance;
    if (tries.reinforcer === "food" && noFood !== null) return refuse(pen, `This block is worked with food. ${noFood.why}`);
    if (on.ladderId !== of.ladder) return refuse(pen, "The ladder it is tried on is put away.");
    // A rung that stands unchanged in a later version is the same rung under its present number.
    const rung =
      on.version === of.version
        ? of.rung
        : on.carried.find(([version]) => version === of.version)?.[1].find(([old]) => old === of.rung)?.[1];
    if (rung === undefined) return refuse(pen, `The rung it is tried on was changed. End the experiment under Review.`);
    begin(
      {
        rung,
        side: sideAsked(on.plan, rung) ?? block?.side ?? "L",
        kind: "work",
        ...(part === undefined ? {} : { part }),
        tries: { ...tries, asks: of.asksEach },
      },
      [],
    );
    setHint(`Try both, block ${tries.n} of ${of.arms.length}: ${way}.`);
  };

  return { tryBoth };
}
