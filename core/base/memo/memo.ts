/**
 * A pure function of an object, computed once for each object for as long as that lives. Objects of the model are never
 * changed, only replaced, so what was computed of one stays true.
 */
export function memoized<K extends object, V extends object>(make: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>();
  return (key) => {
    let found = known.get(key);
    if (!found) {
      found = make(key);
      known.set(key, found);
    }
    return found;
  };
}
