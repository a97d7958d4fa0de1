import * as yup from "yup";
import { record } from "../checks/common";
import { BIN_KINDS, type BinKind } from "./bin-kinds";

/** Something that goes to the bin, or comes back from it. */
export const binSchema = record({
  kind: yup
    .string<BinKind>()
    .oneOf(BIN_KINDS, `kind: one of ${BIN_KINDS.join(", ")}.`)
    .required("kind is missing."),
  id: yup.string().max(100).required("id is missing."),
  back: yup.boolean().default(false),
}).required();

/** Whether a ladder is put away. */
export const putAwaySchema = record({ away: yup.boolean().required("Away: yes or no.") }).required();

/** How many of what go with something into the bin, and how many sessions stay without it. */
export interface GoesWith {
  readonly ladders: number;
  readonly chains: number;
  readonly sessions: number;
  readonly restrictions: number;
  /** Sessions that stay and lose it: their place, handler, kit, or the ladder they were worked on. */
  readonly sessionsStay: number;
}

const counted = (n: number, one: string) => (n === 0 ? [] : [`${n} ${one}${n === 1 ? "" : "s"}`]);

/**
 * What goes with something, and what stays without it, in words.
 * @example goesWithWords("horse", { ladders: 1, chains: 0, sessions: 2, restrictions: 0, sessionsStay: 0 }) // "With it go 1 ladder and 2 sessions."
 */
export function goesWithWords(kind: BinKind, { ladders, chains, sessions, restrictions, sessionsStay }: GoesWith): string {
  const along = [
    ...counted(ladders, "ladder"),
    ...counted(chains, "chain"),
    ...counted(sessions, "session"),
    ...counted(restrictions, "restriction"),
  ];
  const list = along.length < 2 ? along.join("") : `${along.slice(0, -1).join(", ")} and ${along.at(-1)}`;
  const go = along.length === 0 ? "" : `With it ${along.length === 1 && list.startsWith("1 ") ? "goes" : "go"} ${list}.`;
  const lose = { person: "without a handler", place: "without a place", kit: "without it" }[kind as string];
  const stays =
    sessionsStay === 0
      ? ""
      : kind === "ladder"
        ? `${counted(sessionsStay, "session").join("")} worked on it ${sessionsStay === 1 ? "stays" : "stay"} under Review.`
        : `${counted(sessionsStay, "session").join("")} ${sessionsStay === 1 ? "stays" : "stay"}, ${lose ?? "without it"}.`;
  return [go, stays].filter((part) => part !== "").join(" ");
}
