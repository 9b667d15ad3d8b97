/** 'in-1', 'in-2': the first that is not taken. */
export function freeName(stem: string, taken: ReadonlySet<string>): string {
  let n = 1;
  while (taken.has(`${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}
