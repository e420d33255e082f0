import { describe, expect, it } from 'vitest';
import { dimensionSpec, METRIC_UNITS } from '../quantity';
import { kindOf, newStage, STAGE_KINDS, stageSchema, type Stage } from '.';
import type { Around } from './kind';
import type { FieldWrite, StageFields } from './field';

const AROUND: Around = { units: METRIC_UNITS, linePressureBar: 4, unit: null, ahead: [] };
const fieldsOf = (stage: Stage, around: Partial<Around> = {}): StageFields<Stage> => kindOf(stage).fields(stage, { ...AROUND, ...around });
const written = (write: FieldWrite<Stage>): Stage => {
  if (!('stage' in write)) throw new Error('not of the stage');
  return write.stage;
};
const isOfStage = (write: FieldWrite<Stage>): write is { readonly stage: Stage } => 'stage' in write;

describe('the fields of a stage', () => {
  it.each(STAGE_KINDS)('%s: whatever a field accepts, the model accepts too, and no more', (kind) => {
    const stage: Stage = newStage(kind, 'x');
    for (const asked of fieldsOf(stage).quantities) {
      const { low, high } = dimensionSpec(asked.dimension);
      for (const edge of [asked.low ?? low, asked.high ?? high]) {
        const write = asked.write(edge);
        if (isOfStage(write)) expect(stageSchema.safeParse(write.stage).success, `${asked.label} ${edge}`).toBe(true);
      }
      const over = asked.high === undefined ? null : asked.write(asked.high * 1.01 + (asked.high === 0 ? 1 : 0));
      if (over && isOfStage(over)) expect(stageSchema.safeParse(over.stage).success, `${asked.label} above ${asked.high}`).toBe(false);
    }
  });
  it.each(STAGE_KINDS)('%s: a field shows what it last wrote', (kind) => {
    const stage: Stage = newStage(kind, 'x');
    const before = fieldsOf(stage).quantities;
    before.forEach((asked, i) => {
      const whole = asked.dimension === 'count';
      const next = whole ? (asked.value ?? 0) + 1 : (asked.value ?? 0.5) * 1.02;
      const write = asked.write(next);
      const after = isOfStage(write) ? fieldsOf(write.stage) : fieldsOf(stage, write);
      expect(after.quantities[i]!.value, asked.label).toBeCloseTo(next, 9);
    });
  });
  it.each(STAGE_KINDS)('%s: every choice is one the model knows', (kind) => {
    const stage: Stage = newStage(kind, 'x');
    for (const asked of fieldsOf(stage).choices) {
      expect(asked.items.some((item) => item.value === asked.value)).toBe(true);
      for (const item of asked.items) expect(stageSchema.safeParse(written(asked.write(item.value))).success, item.title).toBe(true);
    }
  });
  it.each(STAGE_KINDS)('%s: no unit hides in a label, and every label is told apart', (kind) => {
    const { quantities, choices } = fieldsOf(newStage(kind, 'x'));
    const labels = [...quantities, ...choices].map(({ label }) => label);
    expect(new Set(labels).size).toBe(labels.length);
    expect(labels.filter((label) => /, (µm|g|eq|m³\/h|mW\/cm²|mg\/L)$/.test(label))).toEqual([]);
  });
  it('what may be left empty is emptied to nothing, and the model takes it', () => {
    for (const kind of STAGE_KINDS)
      for (const { optional, label } of fieldsOf(newStage(kind, 'x')).quantities)
        if (optional) expect(stageSchema.safeParse(written(optional.clear)).success, label).toBe(true);
  });
  it('a length kept in metres is typed in any length', () => {
    const rise = fieldsOf(newStage('tubing', 'x')).quantities.find(({ label }) => label === 'Climbs by')!;
    expect([rise.dimension, rise.unit, rise.low, rise.high]).toEqual(['lengthMm', 'm', -50_000, 50_000]);
    expect(written(rise.write(2500))).toMatchObject({ riseM: 2.5 });
  });
});

describe('the fields of a membrane', () => {
  it('line pressure belongs to the source, not to the membrane', () => {
    const asked = fieldsOf(newStage('membrane', 'x')).quantities.find(({ label }) => label === 'Line pressure')!;
    expect(asked.write(5)).toEqual({ linePressureBar: 5 });
  });
  it('another waste control starts where the unit stands', () => {
    const unit = { concentrateLPerH: 600, concentratePressureBar: 7, recovery: 0.6, noProduction: false };
    const asked = fieldsOf(newStage('membrane', 'x'), { unit }).choices.find(({ label }) => label === 'Waste control')!;
    const valve = (kind: string): unknown => (written(asked.write(kind)) as { valve: unknown }).valve;
    expect(valve('recovery')).toEqual({ kind: 'recovery', recovery: 0.6 });
    expect(valve('pressure')).toEqual({ kind: 'pressure', bar: 7 });
    expect(valve('restrictor')).toBeNull();
    expect(valve('needle')).toEqual({ kind: 'needle', kvM3PerH: expect.closeTo(0.6 / Math.sqrt(7 / 0.99705), 9) });
  });
  it('a second pass is asked where its waste goes', () => {
    const asked = (ahead: readonly Stage[]) =>
      fieldsOf(newStage('membrane', 'x'), { ahead }).choices.find(({ label }) => label === 'Waste of the second pass');
    expect(asked([newStage('carbon', 'c')])).toBeUndefined();
    const choice = asked([newStage('membrane', 'm'), newStage('pump', 'p')])!;
    expect(choice.value).toBe('drain');
    expect(written(choice.write('back'))).toMatchObject({ wasteToFirstPass: true });
  });
  it('where water led past is taken off is asked once any is', () => {
    const ahead = [newStage('carbon', 'c'), newStage('softener', 's')];
    const asked = (bypassShare: number) =>
      fieldsOf({ ...newStage('membrane', 'x'), bypassShare }, { ahead }).choices.find(({ label }) => label === 'Led past from');
    expect(asked(0)).toBeUndefined();
    expect(asked(0.1)!.items.map(({ value }) => value)).toEqual(['', 'c']);
    expect(written(asked(0.1)!.write('c'))).toMatchObject({ bypassAfter: 'c' });
    expect(written(asked(0.1)!.write(''))).toMatchObject({ bypassAfter: null });
  });
  it('recycle, bypass and ageing are folded away', () => {
    const { quantities } = fieldsOf(newStage('membrane', 'x'));
    expect(quantities.filter(({ folded }) => folded === true).map(({ label }) => label)).toEqual([
      'Led back before the pump',
      'Led past the membrane',
      'Output against new',
      'Salt passage against new',
    ]);
  });
  it('ranks are asked once the vessels stand in ranks', () => {
    const asked = fieldsOf({
      ...newStage('membrane', 'x'),
      arrangement: 'array',
      ranks: [
        { vessels: 2, elementsPerVessel: 1 },
        { vessels: 1, elementsPerVessel: 3 },
      ],
    }).quantities.filter(({ label }) => label.startsWith('Rank'));
    expect(asked.map(({ label, value, high }) => [label, value, high])).toEqual([
      ['Rank 1, vessels', 2, 40],
      ['Rank 1, elements in each', 1, 8],
      ['Rank 2, vessels', 1, 40],
      ['Rank 2, elements in each', 3, 8],
    ]);
    expect(written(asked[3]!.write(4))).toMatchObject({ ranks: [{}, { vessels: 1, elementsPerVessel: 4 }] });
  });
});
