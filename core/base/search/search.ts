/**
 * Depth-first search: each node that is reached from the first ones, once, the first ones too.
 * @param next  where one gets from a node
 */
export function* walk<T>(first: Iterable<T>, next: (node: T) => Iterable<T>): Generator<T, void> {
  const open = [...first];
  const met = new Set(open);
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    yield node;
    for (const other of next(node))
      if (!met.has(other)) {
        met.add(other);
        open.push(other);
      }
  }
}

/** All nodes that are reached from the first ones, and these. */
export const reachedFrom = <T>(first: Iterable<T>, next: (node: T) => Iterable<T>): Set<T> =>
  new Set(walk(first, next));

/** Whether one gets from a node to another; from each to itself. */
export function leadsTo<T>(from: T, to: T, next: (node: T) => Iterable<T>): boolean {
  for (const node of walk([from], next)) if (node === to) return true;
  return false;
}

/**
 * Nodes in the order in which a depth-first search leaves them: each behind all that it leads to, but for what closes a
 * ring. Without recursion, since a chain may be thousands long.
 */
export function postOrder<T>(nodes: Iterable<T>, next: (node: T) => readonly T[]): T[] {
  const order: T[] = [];
  const met = new Set<T>();
  for (const first of nodes) {
    if (met.has(first)) continue;
    met.add(first);
    const path = [{ node: first, ahead: next(first), at: 0 }];
    for (let top = path.at(-1); top; top = path.at(-1)) {
      const child = top.ahead[top.at++];
      if (child === undefined) {
        order.push(top.node);
        path.pop();
      } else if (!met.has(child)) {
        met.add(child);
        path.push({ node: child, ahead: next(child), at: 0 });
      }
    }
  }
  return order;
}
