import { describe, expect, it } from 'vitest';
import { TEMPLATE_IDS, type System, type TemplateId } from '../file';
import { newStage } from '../stage';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { stageFacts } from './known';
import { reportTrain, type TrainReport } from './report';

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
const report = (system: System): TrainReport => value(reportTrain(system, value(tapWater(system.source, system.instruments)).water));

describe('the figures of a stage', () => {
  it.each(TEMPLATE_IDS)('%s: each is a text with its unit, none of them NaN', (template) => {
    const system = from(template);
    const solved = report(system);
    for (const stage of system.train.stages) {
      for (const [name, text] of stageFacts(stage, solved, system.units)) expect(text, name).not.toMatch(/NaN|undefined|Infinity/);
    }
    const membrane = system.train.stages.find((stage) => stage.kind === 'membrane');
    if (!membrane) return;
    const facts = Object.fromEntries(stageFacts(membrane, solved, system.units));
    expect(facts['Salt held back']).toMatch(/^9\d(\.\d)?\u202f%$/);
    expect(facts['Flux']).toMatch(
      membrane.kind === 'membrane' && ['series', 'array'].includes(membrane.arrangement) ? /and/ : /^\d+\.\d L\/m²h$/,
    );
  });
  it('a membrane that makes nothing has no flux to show', () => {
    const system = from('marineHousehold');
    const solved = report({ ...system, source: { ...system.source, linePressureBar: 0 } });
    const facts = Object.fromEntries(stageFacts(system.train.stages[2]!, solved, system.units));
    expect([facts['Salt held back'], facts['Flux']]).toEqual(['–', '–']);
  });
  it('only the last tank speaks of its float', () => {
    const system = from('marineHousehold');
    const tank = system.train.stages.at(-1)!;
    const first = { ...newStage('tank', 'first'), openToAir: false };
    const two = { ...system, train: { ...system.train, stages: [first, ...system.train.stages] } };
    const solved = report(two);
    expect(stageFacts(tank, solved, system.units).map(([name]) => name)).toEqual(['Starts a day', 'Runs a day']);
    expect(stageFacts(first, solved, system.units)).toEqual([]);
  });
});
