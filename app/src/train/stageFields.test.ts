import { stageSchema, TEMPLATE_IDS, type Stage } from '@yes-clear/core/file';
import { dimensionSpec } from '@yes-clear/core/quantity';
import { newStage, reportTrain, systemFromTemplate, tapWater } from '@yes-clear/core/train';
import { describe, expect, it } from 'vitest';
import { stageFacts } from './stageFacts';
import { stageFields } from './stageFields';

const KINDS = [
  'sediment',
  'carbon',
  'membrane',
  'pump',
  'resin',
  'softener',
  'decarboniser',
  'inhibitor',
  'calcite',
  'uv',
  'tubing',
  'tank',
] as const;
const source = { linePressureBar: 4 };
const applied = (stage: Stage, change: { stage: Partial<Stage> } | { source: object }): Stage =>
  'stage' in change ? ({ ...stage, ...change.stage } as Stage) : stage;

describe('the fields of a stage', () => {
  it.each(KINDS)('%s: whatever a field accepts, the file accepts too, and no more', (kind) => {
    const stage = newStage(kind, 'x') as Stage;
    for (const spec of stageFields(stage, source).quantities) {
      const { low, high } = dimensionSpec(spec.dimension);
      for (const edge of [spec.low ?? low, spec.high ?? high]) {
        expect(stageSchema.safeParse(applied(stage, spec.change(edge))).success, `${spec.label} ${edge}`).toBe(true);
      }
      if (spec.high !== undefined && spec.label !== 'Line pressure') {
        expect(stageSchema.safeParse(applied(stage, spec.change(spec.high * 1.01))).success, `${spec.label} above ${spec.high}`).toBe(
          false,
        );
      }
    }
  });
  it.each(KINDS)('%s: a field shows what it last wrote', (kind) => {
    const stage = newStage(kind, 'x') as Stage;
    const before = stageFields(stage, source).quantities;
    before.forEach((spec, i) => {
      const shown = spec.value ?? 0.5;
      const change = spec.change(shown * 1.02);
      const after = 'source' in change ? stageFields(stage, { ...source, ...change.source }) : stageFields(applied(stage, change), source);
      expect(after.quantities[i]!.value).toBeCloseTo(shown * 1.02, 9);
    });
  });
  it.each(KINDS)('%s: every choice is one the file knows', (kind) => {
    const stage = newStage(kind, 'x') as Stage;
    for (const spec of stageFields(stage, source).choices) {
      expect(spec.items.some((item) => item.value === spec.value)).toBe(true);
      for (const item of spec.items) expect(stageSchema.safeParse({ ...stage, ...spec.change(item.value) }).success, item.title).toBe(true);
    }
  });
  it('line pressure belongs to the source, not to the membrane', () => {
    const spec = stageFields(newStage('membrane', 'x'), source).quantities.find((candidate) => candidate.label === 'Line pressure')!;
    expect(spec.change(5)).toEqual({ source: { linePressureBar: 5 } });
  });
  it('another waste control starts where the unit stands', () => {
    const spec = stageFields(newStage('membrane', 'x'), source, {
      concentrateLPerH: 600,
      concentratePressureBar: 7,
      recovery: 0.6,
      noProduction: false,
    }).choices.find((candidate) => candidate.label === 'Waste control')!;
    expect(spec.change('recovery')).toEqual({ valve: { kind: 'recovery', recovery: 0.6 } });
    expect(spec.change('pressure')).toEqual({ valve: { kind: 'pressure', bar: 7 } });
    expect(spec.change('restrictor')).toEqual({ valve: null });
    expect(spec.change('needle')).toEqual({ valve: { kind: 'needle', kvM3PerH: expect.closeTo(0.6 / Math.sqrt(7 / 0.99705), 9) } });
  });
  it('what may be left empty is emptied to nothing, and the file takes it', () => {
    for (const kind of KINDS) {
      const stage = newStage(kind, 'x') as Stage;
      for (const { optional, label } of stageFields(stage, source).quantities)
        if (optional) expect(stageSchema.safeParse(applied(stage, optional.clear)).success, label).toBe(true);
    }
  });
  it('a second pass is asked where its waste goes', () => {
    const asked = (ahead: readonly Stage[]) =>
      stageFields(newStage('membrane', 'x') as Stage, source, null, ahead).choices.find(
        ({ label }) => label === 'Waste of the second pass',
      );
    expect(asked([newStage('carbon', 'c') as Stage])).toBeUndefined();
    const choice = asked([newStage('membrane', 'm'), newStage('pump', 'p')] as Stage[])!;
    expect(choice.value).toBe('drain');
    expect(choice.change('back')).toEqual({ wasteToFirstPass: true });
  });
  it('where water led past is taken off is asked once any is', () => {
    const ahead = [newStage('carbon', 'c'), newStage('softener', 's')] as Stage[];
    const membrane = { ...newStage('membrane', 'x'), bypassShare: 0.1 } as Stage;
    const asked = (stage: Stage) => stageFields(stage, source, null, ahead).choices.find(({ label }) => label === 'Led past from');
    expect(asked({ ...membrane, bypassShare: 0 } as Stage)).toBeUndefined();
    expect(asked(membrane)!.items.map(({ value }) => value)).toEqual(['', 'c']);
    expect(asked(membrane)!.change('c')).toEqual({ bypassAfter: 'c' });
    expect(asked(membrane)!.change('')).toEqual({ bypassAfter: null });
  });
  it('recycle, bypass and ageing are folded away', () => {
    const { quantities } = stageFields(newStage('membrane', 'x'), source);
    expect(quantities.filter((spec) => spec.advanced).map((spec) => spec.label)).toEqual([
      'Led back before the pump',
      'Led past the membrane',
      'Output against new',
      'Salt passage against new',
    ]);
  });
});

describe('the figures of a stage', () => {
  it.each(TEMPLATE_IDS)('%s: each is a text with its unit, none of them NaN', (template) => {
    const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
    const water = tapWater(system.source, system.instruments);
    const solved = water.ok ? reportTrain(system, water.value.water) : water;
    if (!solved.ok) throw new Error(solved.error.message);
    for (const stage of system.train.stages) {
      for (const [name, text] of stageFacts(stage, solved.value, system.units)) expect(text, name).not.toMatch(/NaN|undefined|Infinity/);
    }
    const membrane = system.train.stages.find((stage) => stage.kind === 'membrane');
    if (!membrane) return;
    const facts = Object.fromEntries(stageFacts(membrane, solved.value, system.units));
    expect(facts['Salt held back']).toMatch(/^9\d(\.\d)?\u202f%$/);
    expect(facts['Flux']).toMatch(
      membrane.kind === 'membrane' && ['series', 'array'].includes(membrane.arrangement) ? /and/ : /^\d+\.\d L\/m²h$/,
    );
  });
  it('a membrane that makes nothing has no flux to show', () => {
    const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
    const water = tapWater(system.source, system.instruments);
    const solved = water.ok ? reportTrain({ ...system, source: { ...system.source, linePressureBar: 0 } }, water.value.water) : water;
    if (!solved.ok) throw new Error(solved.error.message);
    const facts = Object.fromEntries(stageFacts(system.train.stages[2]!, solved.value, system.units));
    expect([facts['Salt held back'], facts['Flux']]).toEqual(['–', '–']);
  });
});
