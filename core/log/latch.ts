/**
 * Whether a limit counts as passed (science of logs, 9): a bare limit cries several times a year over a figure that lies a
 * standard deviation inside it, so an alarm goes on when two readings in a row or one very sure one say so, and stays until it is
 * more likely unfounded.
 */
const ON = { twice: 0.9, once: 0.98 } as const;
const OFF = 0.5;

/**
 * @param chances that the limit is passed, by all that was known at each reading, oldest first
 * @returns whether the alarm stands after the last of them
 */
export function stands(chances: readonly number[]): boolean {
  let on = false;
  chances.forEach((chance, i) => {
    if (on) on = chance >= OFF;
    else on = chance > ON.once || (chance > ON.twice && (chances[i - 1] ?? 0) > ON.twice);
  });
  return on;
}
