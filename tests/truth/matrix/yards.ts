import { type Chance, mixedChance } from "@/core/chance";
import { DIALS, type Dials } from "../yard";

export type Dial = (typeof DIALS)[number];

/** One sentence of the app, on what one horse of a yard showed. */
export interface Sentence<Drawn> {
  readonly name: string;
  /** Said falsely, or the truth left out, in at most so many of 100. */
  readonly limit: number;
  /** Dials under which it is true, so that it is not asked there. */
  readonly trueWhere?: (change: Partial<Dials>) => boolean;
  /** Whether it was said falsely; null where nothing was said that could be wrong. */
  readonly falsely: (drawn: Drawn, dials: Dials) => boolean | null;
  /** The same where something is there, of a size worth a trainer's while. */
  readonly found?: {
    readonly what: string;
    readonly draw: (chance: Chance, dials: Dials) => Drawn;
    readonly said: (drawn: Drawn) => boolean;
  };
}

/** A sentence as it stands in the matrix, whatever it is asked of. */
export interface Row {
  readonly name: string;
  readonly limit: number;
  readonly trueWhere: (change: Partial<Dials>) => boolean;
  readonly found: string | null;
}

/** Horses of one kind of yard, drawn once for all the sentences that are asked of them. */
export interface Yard {
  readonly name: string;
  readonly rows: readonly Row[];
  /** What of a yard's habits it can have to do with. */
  readonly dials: readonly Dial[];
  /** One horse where nothing is there: of each row whether it was said falsely; null where it was not asked. */
  readonly nothing: (chance: Chance, dials: Dials, rows: ReadonlySet<string>) => ReadonlyMap<string, boolean>;
  /** One horse a row where something is there: whether it was found. */
  readonly something: (seed: string, dials: Dials, rows: ReadonlySet<string>) => ReadonlyMap<string, boolean>;
}

/** A kind of yard, by how a horse of it is drawn and what is asked of it. */
export function yard<Drawn>(
  name: string,
  touched: (change: Partial<Dials>) => boolean,
  draw: (chance: Chance, dials: Dials) => Drawn,
  sentences: readonly Sentence<Drawn>[],
): Yard {
  return {
    name,
    rows: sentences.map(({ name: row, limit, trueWhere = () => false, found }) => ({
      name: row,
      limit,
      trueWhere,
      found: found?.what ?? null,
    })),
    dials: DIALS.filter(([, change]) => Object.keys(change).length === 0 || touched(change)),
    nothing: (chance, dials, rows) => {
      const drawn = draw(chance, dials);
      return new Map(
        sentences.flatMap(({ name: row, falsely }): [string, boolean][] => {
          const was = rows.has(row) ? falsely(drawn, dials) : null;
          return was === null ? [] : [[row, was]];
        }),
      );
    },
    something: (seed, dials, rows) =>
      new Map(
        sentences.flatMap(({ name: row, found }): [string, boolean][] =>
          found === undefined || !rows.has(row) ? [] : [[row, found.said(found.draw(mixedChance(`${seed} ${row}`), dials))]],
        ),
      ),
  };
}

/** Whether a dial has to do with these habits and with no others. */
export const only =
  (...names: readonly (keyof Dials)[]) =>
  (change: Partial<Dials>): boolean =>
    Object.keys(change).every((name) => names.some((one) => one === name));
