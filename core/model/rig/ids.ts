/** An id made of a name, as documents want them; `otherwise` where nothing of the name can be kept. */
export const idFrom = (name: string, otherwise: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 56) || otherwise;
