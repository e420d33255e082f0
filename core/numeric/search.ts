/** Index of the last of a sorted list that lies at or before a value, the list's own key; 0 where none does. */
export function lastFrom<T>(sorted: readonly T[], key: (one: T) => number, value: number): number {
  let [low, high] = [0, sorted.length - 1];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (key(sorted[middle]!) <= value) low = middle;
    else high = middle - 1;
  }
  return low;
}
