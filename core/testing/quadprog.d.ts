/** The parts of the quadprog package used as a reference: min −dᵀb + ½ bᵀDb subject to Aᵀb ≥ b0; arrays count from 1. */
declare module 'quadprog' {
  export function solveQP(
    Dmat: number[][],
    dvec: number[],
    Amat: number[][],
    bvec: number[],
    meq?: number,
  ): { solution: number[]; value: number[]; message: string };
  const quadprog: { solveQP: typeof solveQP };
  export default quadprog;
}
