/** The part of the odex package used as a reference; the package itself ships sources that strict checking refuses. */
interface OdexSolver {
  absoluteTolerance: number;
  relativeTolerance: number;
  solve(f: (x: number, y: number[]) => number[], x: number, y0: number[], xEnd: number): { y: number[] };
}
declare const odex: { Solver: new (n: number) => OdexSolver };
export default odex;
