/** A smooth function of a few inputs, laid down at a grid of nodes and read between them by polynomials in each. */

/** Weights of Lagrange's polynomials through some nodes, at a place. */
function weightsAt(nodes: readonly number[], x: number): number[] {
  return nodes.map((own, i) => nodes.reduce((product, other, k) => (k === i ? product : (product * (x - other)) / (own - other)), 1));
}

/** Every place of a grid, the last axis running fastest. */
const placesOf = (axes: readonly (readonly number[])[]): number[][] =>
  axes.reduce<number[][]>((all, nodes) => all.flatMap((head) => nodes.map((node) => [...head, node])), [[]]);

/**
 * Some figures at once over a grid of their inputs.
 *
 * @param of asked once at every node, first axis outermost; each figure is read by its logarithms where it is above 0 everywhere
 * @returns the figures at a place, in their order
 */
export function gridFigures(
  axes: readonly (readonly number[])[],
  of: (...at: number[]) => readonly number[],
): (...at: number[]) => number[] {
  const found = placesOf(axes).map((at) => of(...at));
  const byLog = (found[0] ?? []).map((_, k) => found.every((figures) => figures[k]! > 0));
  const laid = found.map((figures) => figures.map((value, k) => (byLog[k] ? Math.log(value) : value)));
  return (...at) => {
    const weights = axes.map((nodes, k) => weightsAt(nodes, at[k]!));
    const sums = byLog.map(() => 0);
    laid.forEach((figures, place) => {
      let weight = 1;
      let rest = place;
      for (let k = axes.length - 1; k >= 0; k--) {
        weight *= weights[k]![rest % axes[k]!.length]!;
        rest = Math.floor(rest / axes[k]!.length);
      }
      for (let k = 0; k < sums.length; k++) sums[k]! += weight * figures[k]!;
    });
    return sums.map((sum, k) => (byLog[k] ? Math.exp(sum) : sum));
  };
}

/** One figure over a grid of its inputs, see `gridFigures`. */
export function gridTable(axes: readonly (readonly number[])[], of: (...at: number[]) => number): (...at: number[]) => number {
  const figures = gridFigures(axes, (...at) => [of(...at)]);
  return (...at) => figures(...at)[0]!;
}

/**
 * A smooth function over a range, tabulated at Chebyshev and Lobatto's nodes, both ends included, and read off by the
 * barycentric formula (Berrut and Trefethen 2004, recalled).
 *
 * @param count nodes, at least 2
 */
export function chebyshevTable(low: number, high: number, count: number, of: (x: number) => number): (x: number) => number {
  const nodes = Array.from({ length: count }, (_, k) => (low + high) / 2 - ((high - low) / 2) * Math.cos((k * Math.PI) / (count - 1)));
  const values = nodes.map(of);
  const weights = nodes.map((_, k) => (k % 2 === 0 ? 1 : -1) * (k === 0 || k === count - 1 ? 0.5 : 1));
  if (!(high > low)) return () => values[0]!;
  return (x) => {
    let [above, below] = [0, 0];
    for (let k = 0; k < count; k++) {
      const apart = x - nodes[k]!;
      if (apart === 0) return values[k]!;
      const share = weights[k]! / apart;
      above += share * values[k]!;
      below += share;
    }
    return above / below;
  };
}
