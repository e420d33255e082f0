import { describe, expect, it } from 'vitest';
import { reportTrain } from '../advice';
import type { Measured, System, Work } from '../file';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { measuredOf } from './judge';
import { missingAt, unproven, waitMeasure } from './missing';
import { measuredOutput, standingRatio } from './measuredOutput';
import { bothLow } from './ratio';
import { paperOf, type Block } from './papers';
import { runbook, runbookSteps } from './runbook';
import { newWork, stepDone, withDeviation, withMeasured, withStepEntered } from './work';

/** A commissioning as a tired person does it: slips, blanks, a timer nobody started; what the screen and the paper then say. */
const AT = '2026-11-23T10:00:00Z';
const made = (template: System['template']): System => systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: AT });
const TODAY = { linePressureBar: null, temperatureC: null };
const stepsOf = (system: System) => runbookSteps(runbook(system, null, { kind: 'newBuild', stageId: null }));
const stepOf = (system: System, id: string) => stepsOf(system).find((one) => one.id === id)!;
const readAt = (system: System, id: string, measure: string, figure: number, at = AT): Measured => {
  const step = stepOf(system, id);
  return measuredOf(
    system,
    step,
    step.measures.find((one) => one.id === measure)!,
    figure,
    at,
    TODAY,
  );
};
const working = (system: System, change: (work: Work) => Work): System => ({
  ...system,
  build: { ...system.build, works: [change(newWork('w', 'newBuild', null, AT))] },
});
const textOf = (blocks: readonly Block[]): string => JSON.stringify(blocks);
const report = (system: System) => value(reportTrain(system, value(tapWater(system.source, system.instruments)).water));
const PARTIES = { workshop: '', customer: '' };

describe('a blank is not a yes', () => {
  const system = made('marineHousehold');
  it('names what was not read, answered or timed, and nothing else', () => {
    const empty = { measured: [] };
    expect(missingAt(empty, stepOf(system, 'line'), false)).toEqual(['Line pressure: not read', 'Water temperature: not read']);
    expect(missingAt(empty, stepOf(system, 'leaks'), false)).toEqual([
      'Every joint stayed dry: not answered',
      '10 min: the timer was not started',
    ]);
    expect(missingAt(empty, stepOf(system, 'leaks'), true)).toEqual(['Every joint stayed dry: not answered']);
    const leaks = stepOf(system, 'leaks');
    const waited = measuredOf(system, leaks, waitMeasure(leaks), 600, AT, TODAY);
    expect(missingAt({ measured: [readAt(system, 'leaks', 'dry', 0), waited] }, leaks, false)).toEqual([]);
  });
  it('handed over without pressure or product it says so in red on the paper, and not once both were read', () => {
    const blank = working(system, (work) => stepDone(work, 'handover', AT));
    const steps = stepsOf(system);
    expect(unproven(blank, blank.build.works[0]!, steps)).toEqual([
      'The pressure was not read: every prediction beside these figures follows the planned one.',
      'Nobody read the product: how pure it is, is not known.',
    ]);
    expect(paperOf('record', blank, report(blank), PARTIES, '2026-11-23').blocks.filter(({ kind }) => kind === 'caution')).toHaveLength(2);
    const read = working(system, (work) =>
      [readAt(system, 'line', 'linePressureBar', 4.2), readAt(system, 'product-ec', 'productEc', 12)].reduce(withMeasured, work),
    );
    expect(unproven(read, read.build.works[0]!, steps)).toEqual([]);
  });
  it('water let into a tank people drink from, unread, is told to be emptied', () => {
    const boat = made('watermaker');
    const filled = working(boat, (work) => stepDone(work, 'fill-tank', AT));
    expect(unproven(filled, filled.build.works[0]!, stepsOf(boat)).at(-1)).toContain('Empty it, read the product');
  });
});

describe('the plan', () => {
  const system: System = {
    ...made('marineHousehold'),
    source: { ...made('marineHousehold').source, assumed: ['linePressure'], linePressureBar: 4 },
  };
  it('takes a pressure over when its step is done, the last one typed, and calls planned what was planned', () => {
    const typed = working(system, (work) =>
      [60, 4.3].map((bar) => readAt(system, 'line', 'linePressureBar', bar)).reduce(withMeasured, work),
    );
    expect(typed.source.linePressureBar).toBe(4);
    const entered = withStepEntered(typed, stepOf(typed, 'line'));
    expect(entered.source).toMatchObject({ linePressureBar: 4.3, assumed: [] });
    expect(stepOf(entered, 'line').title).toContain('4.00');
    expect(stepOf(entered, 'line').measures[0]!.expected).toBe(4);
    // A step at which nothing was read enters nothing.
    expect(withStepEntered(system, stepOf(system, 'leaks'))).toBe(system);
  });
});

describe('what the papers say', () => {
  const system = made('marineHousehold');
  it('each figure once, as typed, with what it was corrected from; a no is an answer; a blank has its reason', () => {
    const done = working(system, (work) =>
      withDeviation(
        [
          readAt(system, 'product-ec', 'productEc', 1880),
          readAt(system, 'product-ec', 'productEc', 188, '2026-11-23T10:05:00Z'),
          readAt(system, 'leaks', 'dry', 0),
        ].reduce(withMeasured, work),
        { step: 'line', title: 'Read the line pressure', at: AT, how: 'accepted', reason: 'No gauge', costs: 'Line pressure: not read.' },
      ),
    );
    const blocks = paperOf('record', done, report(done), PARTIES, '2026-11-23').blocks;
    const table = blocks.find((block): block is Extract<Block, { kind: 'table' }> => block.kind === 'table')!;
    expect(table.rows).toHaveLength(2);
    expect(table.rows[0]![2]).toMatch(/^94\D.*corrected from 940/);
    expect(table.rows[0]![2]).not.toContain('±');
    expect(table.rows[1]!.slice(2, 5)).toEqual(['no', '', '']);
    expect(textOf(blocks)).toContain('Line pressure: not read.');
    expect(textOf(blocks)).not.toContain('not so');
  });
  it('two jugs overrule what was solved: the offer promises what was measured, and says what was worked out', () => {
    const membrane = system.train.stages.find((stage) => stage.kind === 'membrane')!;
    const jug = {
      id: 'r',
      at: AT,
      wasteL: 0.45,
      productL: 0.09,
      seconds: 60,
      pressureBar: 4,
      temperatureC: 12,
      restrictorLengthMm: membrane.restrictor.lengthMm,
    };
    const measured: System = { ...system, build: { ...system.build, ratios: [jug] } };
    expect(measuredOutput(measured)!.productLPerDay).toBeCloseTo(129.6, 6);
    const facts = (of: System): readonly (readonly [string, string])[] =>
      paperOf('offer', of, report(of), PARTIES, '2026-11-23').blocks.flatMap((block) => (block.kind === 'facts' ? block.rows : []));
    const told = new Map(facts(measured));
    expect(told.get('Makes')).toMatch(/^130\D+measured with two jugs on 23 November 2026 at/);
    expect(told.get('Worked out')).toContain('what was measured counts');
    expect(told.get('To the drain')).toMatch(/^5.0.*1 of waste to product, measured/);
    expect(new Map(facts(system)).get('Makes')).toContain('elements differ');
    // Cut since, the measurement belongs to another length.
    expect(standingRatio(measured)).toEqual(jug);
    expect(measuredOutput({ ...measured, build: { ...measured.build, ratios: [{ ...jug, restrictorLengthMm: 999 }] } })).toBeNull();
  });
  it('no line of the offer costs 0.00: without prices it is to be priced, with some it begins from their sum', () => {
    const table = paperOf('offer', system, report(system), PARTIES, '2026-11-23').blocks.flatMap((block) =>
      block.kind === 'table' && block.head[1] === 'Lines' ? block.rows : [],
    );
    expect(table.length).toBeGreaterThan(3);
    for (const row of table) expect(row[2]).not.toBe('0.00');
    expect(table.some((row) => row[2] === 'to be priced' || row[2]!.startsWith('from '))).toBe(true);
  });
  it('both flows a fifth below lack pressure; one alone is its own matter', () => {
    expect(bothLow(0.82, 0.82)).toBe(true);
    expect([bothLow(0.82, 0.95), bothLow(0.95, 0.82), bothLow(0.95, 0.95)]).toEqual([false, false, false]);
  });
});
