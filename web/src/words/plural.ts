/** A number with its word, one or many. */
export const plural = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;
