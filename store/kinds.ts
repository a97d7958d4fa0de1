import { kindsWhere, type SessionKind } from "@/core/events";

/** Kinds of session as a list of SQL: 'work', 'circle'. They are words of the program's own table. */
export const kindsInSql = (kinds: readonly SessionKind[]): string => kinds.map((kind) => `'${kind}'`).join(", ");

/** Kinds whose asks are evidence of any ladder they work. */
export const ANY_LADDER = kindsInSql(kindsWhere(({ evidence }) => evidence === "any ladder"));
/** Kinds whose asks are evidence of the ladder they were begun on, where there is one. */
export const ITS_LADDER = kindsInSql(kindsWhere(({ evidence }) => evidence === "its ladder"));
/** Kinds that go by a plan on the circle. */
export const ON_CIRCLE = kindsInSql(kindsWhere(({ plan }) => plan === "circle"));
