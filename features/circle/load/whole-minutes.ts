/** Minutes as the load book writes them. */
export const wholeMinutes = (value: number): string => String(Math.round(value));
