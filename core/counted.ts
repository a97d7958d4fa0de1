/**
 * A count with its word, one or many.
 * @example counted(1, "try", "tries") // "1 try"
 */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
