/** A smooth function of a few inputs, laid down at a grid of nodes and read between them by polynomials in each. */

/** Weights of Lagrange's polynomials through some nodes, at a place. */
function weightsAt(nodes: readonly number[], x: number): number[] {
  return nodes.map((own, i) => nodes.reduce((product, other, k) => (k === i ? product : (product * (x - other)) / (own - other)), 1));
}

/** @param of asked once at every node of the grid, first axis outermost; read as logarithms, so it must be above 0 */
export function gridTable(axes: readonly (readonly number[])[], of: (...at: number[]) => number): (...at: number[]) => number {
  const places = axes.reduce<number[][]>((all, nodes) => all.flatMap((head) => nodes.map((node) => [...head, node])), [[]]);
  const laid = places.map((at) => Math.log(of(...at)));
  return (...at) => {
    const weights = axes.map((nodes, k) => weightsAt(nodes, at[k]!));
    let sum = 0;
    for (let place = 0; place < laid.length; place++) {
      let weight = 1;
      let rest = place;
      for (let k = axes.length - 1; k >= 0; k--) {
        weight *= weights[k]![rest % axes[k]!.length]!;
        rest = Math.floor(rest / axes[k]!.length);
      }
      sum += weight * laid[place]!;
    }
    return Math.exp(sum);
  };
}
