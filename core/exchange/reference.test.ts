import { describe, expect, it } from 'vitest';
import { expectWithin, value } from '../testing/close';
import { columnByOde } from '../testing/columnByOde';
import { cellRow, runCells } from './cells';
import { firstPast } from './column';
import { frontChain } from './coherence';

/** Litres at which each ion first passes the middle between the plateaus before and behind its front. */
function midpoints(
  alpha: readonly number[],
  x: readonly number[],
  totalMeqL: number,
  litres: readonly number[],
  out: readonly (readonly number[])[],
): number[] {
  const fronts = value(frontChain(alpha, x));
  return fronts.map((front, k) => {
    const before = k > 0 ? fronts[k - 1]!.behind[front.ion]! : 0;
    const level = (totalMeqL * (before + front.behind[front.ion]!)) / 2;
    return firstPast(
      litres,
      out.map((water) => water[front.ion]!),
      level,
    )!;
  });
}

describe('an independent integration of the same equations by a general ODE package', () => {
  it.each([
    ['ammonium and calcium', [1, 4], [0.4, 0.6], 1.7],
    ['four ions', [1, 3, 8, 30], [0.3, 0.1, 0.25, 0.35], 2.6],
  ])('%s: the same breakthrough times within 1 %, the same plateau', (_, alpha, x, end) => {
    const [capacityEq, totalMeqL, cells] = [0.72, 2, 30];
    const feed = x.map((share) => share * totalMeqL);
    const litres = Array.from({ length: 240 }, (__, k) => ((k + 1) * end * 360) / 240);
    const out = columnByOde(alpha, feed, capacityEq, cells, litres, 1e-5);
    const run = value(
      runCells(value(cellRow(alpha, [{ capacityEq, cells, transferUnits: null }])), feed, { litres: end * 360, batchShare: 0.1 }),
    );
    const ours = Array.from(run.litres, (__, b) => Array.from(run.outMeqL.subarray(b * alpha.length, (b + 1) * alpha.length)));
    const theirs = midpoints(alpha, x, totalMeqL, litres, out);
    midpoints(alpha, x, totalMeqL, Array.from(run.litres), ours).forEach((at, k) => expectWithin(at, theirs[k]!, 0.01, `ion ${k}`));
    const peak = (of: readonly (readonly number[])[]): number => Math.max(...of.map((water) => water[0]!));
    expectWithin(peak(ours), peak(out), 0.01);
    expect(run.balanceError).toBeLessThan(1e-10);
  });
});
