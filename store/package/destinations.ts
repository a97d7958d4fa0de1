import { randomUUID as newId } from "node:crypto";
import type { Model } from "sequelize";
import { NotSuchAFileError } from "@/core/formats";
import { check, type HorseInput, horseSchema } from "@/core/schemas";
import { addHorse, getHorse, listHorses } from "../horses";
import { listLadders } from "../ladders";
import type { HorseRow } from "../models";
import type { Store } from "../store";
import { noteRows } from "./on-the-way";
import { PACKED_TABLES, type PackedTable } from "./tables";

/** What a file says of one horse, and where that goes. */
export interface BroughtHorse {
  /** As the file names it; empty where it names none. */
  readonly name: string;
  /** A horse of this yard, one that is made for it, or none: its rows are left out. */
  readonly to: { readonly horse: string } | "new" | "out";
  readonly sessions: number;
  readonly trials: number;
}

/** Whose the rows of a table are. */
export interface WhoseRows {
  /** Of rows that name no horse. */
  readonly horse: string;
  /** By the name in the file, in small letters: a horse's id, "new" or "out". What is not said goes to the horse of that name, and is left out where there is none. */
  readonly byName?: Readonly<Record<string, string>>;
}

/** Who and where by name, and which ladder a behaviour is. */
export interface Known {
  readonly ladders: ReadonlyMap<string, { readonly id: string; readonly version: number; readonly rungs: number }>;
  readonly people: ReadonlyMap<string, string>;
  readonly places: ReadonlyMap<string, string>;
}

export const NOBODY: Known = { ladders: new Map(), people: new Map(), places: new Map() };

export const small = (name: string) => name.trim().toLowerCase();

/** More horses than any table of one yard names. */
const MOST_NAMES = 300;

/** Where rows of one name go, and what came of them so far. */
interface Destination {
  readonly name: string;
  readonly to: BroughtHorse["to"];
  /** Null where the rows are left out, or the horse is not made yet. */
  horse: HorseRow | null;
  known: Known | null;
  readonly sessions: Set<string>;
  trials: number;
}

/** Where rows of each horse of a file go: looked up once a name. */
export class Destinations {
  private readonly byName = new Map<string, Destination>();

  private constructor(
    private readonly store: Store,
    private readonly whose: WhoseRows,
    private readonly horses: readonly HorseRow[],
    private readonly people: ReadonlyMap<string, string>,
    private readonly places: ReadonlyMap<string, string>,
  ) {}

  static async of(store: Store, whose: WhoseRows): Promise<Destinations> {
    await getHorse(store, whose.horse);
    const names = (rows: readonly Model[]) => new Map(rows.map((row) => [small(String(row.get("name"))), String(row.get("id"))]));
    return new Destinations(
      store,
      whose,
      await listHorses(store),
      names(await store.models.person.findAll()),
      names(await store.models.place.findAll()),
    );
  }

  private horseOf(name: string): { to: BroughtHorse["to"]; horse: HorseRow | null } {
    const by = (id: string) => {
      const horse = this.horses.find((one) => one.id === id);
      return horse === undefined ? { to: "out" as const, horse: null } : { to: { horse: id }, horse };
    };
    if (name === "") return by(this.whose.horse);
    const said = this.whose.byName?.[small(name)];
    if (said === "new" || said === "out") return { to: said, horse: null };
    if (said !== undefined) return by(said);
    const [alike, ...others] = this.horses.filter((horse) => small(horse.name) === small(name));
    // Of two horses of one name nobody has said which.
    return alike === undefined || others.length > 0 ? { to: "out", horse: null } : { to: { horse: alike.id }, horse: alike };
  }

  at(name: string): Destination {
    const key = small(name);
    let found = this.byName.get(key);
    if (found === undefined) {
      if (this.byName.size >= MOST_NAMES)
        throw new NotSuchAFileError(`The column for the horse holds more than ${MOST_NAMES} names: it may be another column.`);
      found = { name, ...this.horseOf(name), known: null, sessions: new Set(), trials: 0 };
      this.byName.set(key, found);
    }
    return found;
  }

  /** Makes the horses that are new, in the write that notes them, and knows their ladders. */
  async ready(names: readonly string[], mark: string | null): Promise<void> {
    for (const name of new Set(names)) {
      const at = this.at(name);
      if (at.to === "new" && at.horse === null && mark !== null) at.horse = await newHorse(this.store, mark, name);
      if (at.known !== null) continue;
      const ladders = at.horse === null ? [] : await listLadders(this.store, at.horse.id);
      at.known = {
        ladders: new Map(
          ladders.map(({ id, behaviour, version, plan }) => [small(behaviour.name), { id, version, rungs: plan.rungs.length }]),
        ),
        people: this.people,
        places: this.places,
      };
    }
  }

  /** What came of each horse the file names. */
  get said(): readonly BroughtHorse[] {
    return [...this.byName.values()]
      .filter(({ name }) => name !== "")
      .map(({ name, to, sessions, trials }) => ({ name, to, sessions: sessions.size, trials }));
  }
}

/** A horse of which a table says no more than its name. */
async function newHorse(store: Store, mark: string, name: string): Promise<HorseRow> {
  const id = newId();
  const input = check(horseSchema, { name });
  if (!input.ok) throw new NotSuchAFileError(`“${name}” is no name for a horse: ${input.problems[0]?.message ?? ""}`);
  const table = PACKED_TABLES.find((one) => one.name === "horse") as PackedTable;
  // Noted before it is made: a cut between the two leaves a note of nothing, and no horse without one.
  await store.writer.write((transaction) => noteRows(store, mark, table, [[id]], transaction));
  await addHorse(store, input.value as HorseInput, { id });
  return getHorse(store, id);
}
