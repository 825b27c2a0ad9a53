/** The first id of the form prefix+number that is not taken. */
export function freshId(prefix: string, taken: string[]): string {
  const used = new Set(taken);
  let n = 1;
  while (used.has(`${prefix}${n}`)) n++;
  return `${prefix}${n}`;
}
