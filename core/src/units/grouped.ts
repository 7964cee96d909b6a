/** Things by what they have in common, in their order. */
export function groupedBy<T, K>(things: Iterable<T>, of: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const one of things) {
    const key = of(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}
