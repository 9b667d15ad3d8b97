/** A number with its noun in the right form: 1 take, 3 takes. */
export type Count = (n: number, one: string, many?: string) => string;
export const count: Count = (n, one, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;
