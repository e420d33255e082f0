import { amountOf, cellRow, frontChain, runCells, simulateBeds, type Bed, type IonId } from '../core/exchange';
import { columnByOde } from '../core/testing/columnByOde';
import { balanced, solutesMgL } from '../core/water';
import { must, time, type Row } from './benchKit';

/** Two cartridges of the trade on a hard tap with ammonium: five ions a side, to full exhaustion. */
const MEQ_L = { Na: 0.6, NH4N: 0.05, K: 0.1, Mg: 0.5, Ca: 0.75, SiO2: 0.15, carbon: 1.3, Cl: 0.55, NO3: 0.1, SO4: 0.2 } as const;
const CATIONS = { alpha: [1, 1.288, 1.465, 31.88, 50], meqL: [0.6, 0.05, 0.1, 0.5, 0.75], capacityEq: 0.72 };
const ANIONS = { alpha: [0.05, 0.27, 1, 3.2, 9.1], meqL: [0.15, 1.3, 0.55, 0.1, 0.2], capacityEq: 0.6 };
type SideOf = typeof CATIONS;
const CELLS = 60;
/** Batch at which the cells' plateaus are as near the theory as the ODE package's. */
const FINE_BATCH = 0.07;

const total = (side: SideOf): number => side.meqL.reduce((a, b) => a + b, 0);
const fronts = (side: SideOf): ReturnType<typeof frontChain> =>
  frontChain(
    side.alpha,
    side.meqL.map((meqL) => meqL / total(side)),
  );
/** Litres until the last ion of a side is through two litres of resin, and a twentieth more. */
const horizon = (side: SideOf): number => (1.05 * must(fronts(side)).at(-1)!.lambda * 2 * side.capacityEq * 1000) / total(side);

/** A plateau is judged where its band lasts this share of the time its front took: narrower ones are all front. */
const WIDE = 0.15;

/** Worst peak of an ion against the plateau the theory gives it behind its own front. */
function plateauError(side: SideOf, peak: (ion: number) => number): number {
  const chain = must(fronts(side));
  const wide = chain.filter((front, k) => chain[k + 1] && chain[k + 1]!.lambda > (1 + WIDE) * front.lambda);
  return Math.max(...wide.map((front) => Math.abs(peak(front.ion) / (front.behind[front.ion]! * total(side)) - 1)));
}

function cellsOf(side: SideOf): { ms: number; error: number } {
  const beds = [0, 1].map(() => ({ capacityEq: side.capacityEq, cells: CELLS, transferUnits: null }));
  const run = (): ReturnType<typeof runCells> =>
    runCells(must(cellRow(side.alpha, beds)), side.meqL, { litres: horizon(side), batchShare: FINE_BATCH });
  const { outMeqL, row } = must(run());
  const peak = (ion: number): number => outMeqL.reduce((most, meqL, k) => (k % row.ions === ion ? Math.max(most, meqL) : most), 0);
  return { ms: time(run, 7), error: plateauError(side, peak) };
}

function odeOf(side: SideOf): { ms: number; error: number } {
  const litres = Array.from({ length: 400 }, (_, k) => ((k + 1) * horizon(side)) / 400);
  const start = performance.now();
  const out = columnByOde(side.alpha, side.meqL, 2 * side.capacityEq, 2 * CELLS, litres, 1e-4);
  const ms = performance.now() - start;
  return { ms, error: plateauError(side, (ion) => Math.max(...out.map((water) => water[ion]!))) };
}

const percent = (share: number): string => `${(100 * share).toFixed(2)} %`;

/** The column against a general ODE package, in one run on one machine. */
export function columnRows(): Row[] {
  const bed: Bed = { resin: 'mixedBed', volumeL: 1, depthMm: 400, packing: 1 };
  const mgL = Object.fromEntries(
    Object.entries(MEQ_L).flatMap(([id, meqL]) => (id === 'carbon' ? [] : [[id, amountOf(id as IonId, meqL)]])),
  );
  const water = balanced(solutesMgL(mgL), MEQ_L.carbon, 15);
  const litres = Math.max(horizon(CATIONS), horizon(ANIONS));
  const whole = time(() => must(simulateBeds([bed, bed], water, 20, { litres })), 7);
  const ours = [cellsOf(CATIONS), cellsOf(ANIONS)];
  const theirs = [odeOf(CATIONS), odeOf(ANIONS)];
  const ms = (sides: readonly { ms: number }[]): number => sides.reduce((sum, side) => sum + side.ms, 0);
  const error = (sides: readonly { error: number }[]): string => percent(Math.max(...sides.map((side) => side.error)));
  return [
    {
      what: 'Life of two cartridges, 10 ions, to full exhaustion',
      median: whole,
      unit: 'ms',
      limit: 300,
      note: 'film, bands, pH and conductivity at the outlet',
    },
    {
      what: 'The same as bare cells, 60 a cartridge, fine batches',
      median: ms(ours),
      unit: 'ms',
      limit: null,
      note: `wide plateaus within ${error(ours)} of the exact theory`,
    },
    {
      what: 'The same equations by a general ODE package',
      median: ms(theirs),
      unit: 'ms',
      limit: null,
      note: `one run of odex at 1e-4; wide plateaus within ${error(theirs)}`,
    },
    {
      what: 'Cells against the ODE package',
      median: ms(theirs) / ms(ours),
      unit: 'times',
      limit: null,
      note: 'faster; at least 20 wanted',
    },
  ];
}
