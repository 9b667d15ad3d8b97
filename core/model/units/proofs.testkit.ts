/** How many cases a long test takes: some every day, all of them in `npm run proofs`. */
export const casesOf = (everyDay: number, inProofs: number): number =>
  process.env.MELLOW_PROOFS ? inProofs : everyDay;
