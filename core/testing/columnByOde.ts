import odex from 'odex';

/**
 * A mixed bed's side integrated by a general ODE package (odex: Gragg–Bulirsch–Stoer, Hairer & Wanner), written from
 * the differential equations of the cells in the continuous limit: a cell takes all that comes while it has room, and
 * gives off water in equilibrium with its resin once it is full. It shares no code with `exchange/cells`.
 *
 * The switch between the two is made smooth over the last two per cent of a cell's capacity, for no explicit method
 * steps over a corner.
 */
export function columnByOde(
  alpha: readonly number[],
  feedMeqL: readonly number[],
  capacityEq: number,
  cells: number,
  litres: readonly number[],
  tolerance = 1e-6,
): number[][] {
  const n = alpha.length;
  const full = (1000 * capacityEq) / cells;
  const leaving = (q: readonly number[], at: number, entering: number): number[] => {
    let sum = 0;
    let weighted = 0;
    for (let i = 0; i < n; i++) {
      const held = Math.max(0, q[at + i]!);
      sum += held;
      weighted += held / alpha[i]!;
    }
    const t = Math.min(1, Math.max(0, (sum / full - 0.98) / 0.02));
    const share = t * t * (3 - 2 * t);
    return Array.from({ length: n }, (_, i) => (weighted > 0 ? (share * entering * Math.max(0, q[at + i]!)) / alpha[i]! / weighted : 0));
  };
  const through = (q: readonly number[], rates: number[] | null): number[] => {
    let water = [...feedMeqL];
    for (let c = 0; c < cells; c++) {
      const out = leaving(
        q,
        c * n,
        water.reduce((a, b) => a + b, 0),
      );
      if (rates) for (let i = 0; i < n; i++) rates[c * n + i] = water[i]! - out[i]!;
      water = out;
    }
    return water;
  };
  const solver = new odex.Solver(cells * n);
  solver.absoluteTolerance = tolerance;
  solver.relativeTolerance = tolerance;
  let state = new Array<number>(cells * n).fill(0);
  let from = 0;
  return litres.map((to) => {
    state = solver.solve(
      (_litres, q) => {
        const rates = new Array<number>(cells * n);
        through(q, rates);
        return rates;
      },
      from,
      state,
      to,
    ).y;
    from = to;
    return through(state, null);
  });
}
