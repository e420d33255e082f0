/** Of many that are held the newest stay. */
export function forgetOldest(held: Map<string, unknown>, most: number): void {
  while (held.size > most) held.delete(held.keys().next().value!);
}
