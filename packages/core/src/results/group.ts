/** Things by a key of theirs, in the order the keys are first met. */
export function groupBy<T, K>(things: readonly T[], keyOf: (thing: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const thing of things) {
    const key = keyOf(thing);
    const group = groups.get(key);
    if (group) group.push(thing);
    else groups.set(key, [thing]);
  }
  return groups;
}
