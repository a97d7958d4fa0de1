import type { BegunSession } from "./types";

/** Whose session it is, as its trials name them. @example handlerOfBegun({ … }) // "Nell" */
export const handlerOfBegun = ({ person, person_name }: Pick<BegunSession, "person" | "person_name">): string | null =>
  person ?? (person_name === undefined || person_name === "" ? null : person_name);
