/** A number with what it counts. */
export const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
