import { describe, expect, it } from 'vitest';
import { firstLook, referenceTable } from '../testing/referenceFaults';
import { referenceRig } from '../testing/referenceRig';
import { CATALOGUE } from './catalogue';
import { diagnose, type FaultReading } from './diagnose';
import { pairsFor } from './pairs';
import { plainTruth, type Truth } from './rig';
import type { KindId } from './kinds';

const table = referenceTable(2);
const rig = referenceRig(2);
/** What instruments without error would show with two causes at once. */
function truthOf(water: string, atWater: number, reading: string, atReading: number): Truth {
  const [one, other] = [water, reading].map((id) => CATALOGUE.find((fault) => fault.id === id)!.on(rig));
  const solved = rig.solve(one!.change!(atWater, rig));
  if (!solved.ok) throw new Error(solved.error.message);
  const truth = plainTruth(rig, solved.value);
  return { ...truth, ...other!.reads!(atReading, truth) };
}
const reading = (truth: Truth, ...kinds: KindId[]): FaultReading[] => kinds.map((kind) => ({ kind, value: truth[kind] }));
const LOOK = ['tap', 'membrane', 'product', 'line', 'temperature', 'productFlow', 'wasteFlow', 'later', 'penMembrane', 'inlet'] as const;

describe('two causes at once', () => {
  it.each([
    // A clogged filter whose meter behind the membrane reads four times too much.
    ['prefilter', 0.7, 'meterFault', 0.9],
    // A restrictor that is too tight, seen with resin that is spent.
    ['restrictorTight', 0.4, 'resinSpent', 0.8],
    ['coldWater', 0.6, 'meterFault', 0.2],
  ])('%s at %s with %s at %s comes first among the pairs', (water, atWater, read, atRead) => {
    const readings = reading(truthOf(water, atWater, read, atRead), ...LOOK);
    const alone = diagnose(table, readings);
    if (!alone.ok) throw new Error(alone.error.message);
    const pairs = pairsFor(table, alone.value);
    if (!pairs.ok) throw new Error(pairs.error.message);
    expect(pairs.value[0]!.ids).toEqual([water, read]);
    expect(pairs.value[0]!.probability).toBeGreaterThan(0.5);
    expect(pairs.value.reduce((sum, { probability }) => sum + probability, 0)).toBeLessThanOrEqual(1 + 1e-9);
  });
  it('explains more than the best single cause where two are there', () => {
    const readings = reading(truthOf('prefilter', 0.7, 'meterFault', 0.9), ...LOOK);
    const alone = diagnose(table, readings);
    const pairs = alone.ok ? pairsFor(table, alone.value) : alone;
    if (!alone.ok || !pairs.ok) throw new Error('not diagnosed');
    // By single causes one reading at least is called bad; the pair needs none.
    expect(Math.max(...alone.value.bad)).toBeGreaterThan(0.5);
    expect(pairs.value[0]!.ids).toEqual(['prefilter', 'meterFault']);
  });
  it('names a dozen at the most, all of causes that are known', () => {
    const alone = diagnose(table, firstLook(250, 60, 40, 30, 5, 300, 20));
    if (!alone.ok) throw new Error(alone.error.message);
    const pairs = pairsFor(table, alone.value);
    if (!pairs.ok) throw new Error(pairs.error.message);
    expect(pairs.value.length).toBeGreaterThan(0);
    expect(pairs.value.length).toBeLessThanOrEqual(20);
    for (const { ids, probability } of pairs.value) {
      for (const id of ids) expect(table.hypotheses.some((one) => one.id === id)).toBe(true);
      expect(Number.isFinite(probability)).toBe(true);
    }
  });
});
