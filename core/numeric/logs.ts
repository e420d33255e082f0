/** ln of a sum of terms given as logarithms; −Infinity for none. */
export function logSumExp(terms: ArrayLike<number>): number {
  let most = -Infinity;
  for (let i = 0; i < terms.length; i++) if (terms[i]! > most) most = terms[i]!;
  if (most === -Infinity) return -Infinity;
  let sum = 0;
  for (let i = 0; i < terms.length; i++) sum += Math.exp(terms[i]! - most);
  return most + Math.log(sum);
}

/** How much is still open among causes with these probabilities, in bits (Shannon 1948). */
export const entropyBits = (probabilities: readonly number[]): number =>
  Math.max(
    0,
    probabilities.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0),
  );
