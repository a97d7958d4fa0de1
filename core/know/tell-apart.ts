/** What can tell two horses of one name apart. */
export interface NamedHorse {
  readonly id: string;
  readonly name: string;
  readonly sex: string | null;
  readonly birthYear: number | null;
  readonly kind: string;
  readonly createdMs: number;
}

/** Whether two names read alike, whatever their capitals. @example sameName("Bo", "Bo") // true */
export const sameName = (a: string, b: string) => a.trim().toLocaleLowerCase() === b.trim().toLocaleLowerCase();

/**
 * What to write after a name so that horses of one name are told apart: the
 * first of sex, birth year and kind that sets it apart from every namesake,
 * otherwise its place in the order they were added.
 * @returns by horse id; an empty text where the name is its own.
 * @example tellApart(horses) // a map of 2
 */
export function tellApart(horses: readonly NamedHorse[]): Map<string, string> {
  const words = new Map<string, string>();
  for (const horse of horses) {
    const namesakes = horses.filter((one) => one.id !== horse.id && sameName(one.name, horse.name));
    if (namesakes.length === 0) {
      words.set(horse.id, "");
      continue;
    }
    const facts: ((one: NamedHorse) => string | null)[] = [
      (one) => one.sex,
      (one) => (one.birthYear === null ? null : `born ${one.birthYear}`),
      (one) => (one.kind === "" ? null : one.kind),
    ];
    const apart = facts
      .map((fact) => ({ fact, own: fact(horse) }))
      .find(({ fact, own }) => own !== null && namesakes.every((one) => fact(one) !== own));
    const place = [horse, ...namesakes].sort((a, b) => a.createdMs - b.createdMs || (a.id < b.id ? -1 : 1)).indexOf(horse) + 1;
    words.set(horse.id, apart?.own ?? `no. ${place}`);
  }
  return words;
}
