import { priceList } from '../ledger';
import { describe, expect, it } from 'vitest';
import { TEMPLATE_IDS, type System } from '../file';
import { newStage, stageKind, STAGE_KINDS, type Stage } from '../stage';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { expectedToday } from './expected';
import { HOOK_UP_SETS, partsCsv, partsOf, partsTotal, standsSays, toolsFor, type PricedPart } from './parts';
import { tubeFor, tubeLines, type TubeLine } from './plumbing';

const made = (template: System['template']): System =>
  systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: '2026-11-23T10:00:00Z' });
const solvedOf = (system: System) => value(expectedToday(system, { linePressureBar: null, temperatureC: null })).solved;
const linesOf = (system: System): TubeLine[] => tubeLines(system, solvedOf(system));
const ends = ({ ends: all }: TubeLine): string =>
  all.map(({ at, port, vessel }) => `${at}.${port}${vessel ? `.${vessel.rank}${vessel.index}` : ''}`).join(' + ');

describe('tubing', () => {
  it('a second membrane drinks the waste of the first, and both products meet in a tee (common practice)', () => {
    const lines = linesOf(made('marinePair'));
    expect(lines.map((line) => `${line.letter} ${line.carries}: ${ends(line)}`)).toEqual([
      'F feed: tap.out + sediment.in',
      'A feed: sediment.out + carbon-1.in',
      'B feed: carbon-1.out + carbon-2.in',
      'C feed: carbon-2.out + membrane.feed.00',
      'D waste: membrane.waste.00 + membrane.feed.10',
      'W waste: membrane.waste.10 + drain.in',
      'E product: membrane.product.00 + membrane.product.10 + resin-1.in',
      'G product: resin-1.out + resin-2.in',
      'H product: resin-2.out + tank.in',
      'I product: tank.out + use.in',
    ]);
    expect(lines.filter(({ tees }) => tees > 0).map(({ letter, tees }) => [letter, tees])).toEqual([['E', 1]]);
    expect(lines.find(({ letter }) => letter === 'W')!.holds).toBe('restrictor and flush valve');
  });
  it.each(TEMPLATE_IDS)('%s: every port of every piece has its line, and each line at least two ends', (template) => {
    const system = made(template);
    const lines = linesOf(system);
    const joined = new Set(lines.flatMap(({ ends: all }) => all.map(({ at }) => at)));
    for (const stage of [...system.train.stages, ...system.train.branches.flatMap(({ stages }) => stages)])
      expect(joined).toContain(stage.id);
    for (const line of lines) expect(line.ends.length).toBeGreaterThanOrEqual(2);
    expect(new Set(lines.map(({ id }) => id)).size).toBe(lines.length);
    expect(new Set(lines.map(({ letter }) => letter)).size).toBe(lines.length);
    const wastes = lines.filter(({ ends: all }) => all.some(({ at }) => at === 'drain'));
    expect(wastes.length > 0).toBe(system.train.stages.some((stage) => stageKind(stage.kind).plumbed(stage as never).drains));
  });
  it('a blend runs from before the softener to behind the membrane; recycle goes before the pump', () => {
    const lines = linesOf(made('counterHard')).map(ends);
    expect(lines).toContain('carbon.out + softener.in + blend-membrane.in');
    expect(lines).toContain('membrane.product.00 + tank.in + blend-membrane.out');
    expect(lines).toContain('membrane.waste.00 + drain.in + pump.in');
  });
  it.each([
    [20, '1/4 in'],
    [100, '3/8 in'],
    [700, 'DN 15'],
    [2600, 'DN 25'],
  ])('%s L/h goes through %s: the smallest below 1.5 m/s', (flow, name) => expect(tubeFor(flow).name).toBe(name));
  it('a length that was typed stays with its line, and a stage of tubing gives its own', () => {
    const base = made('marinePair');
    const w = linesOf(base).find(({ letter }) => letter === 'W')!;
    const typed = { ...base, build: { ...base.build, lines: [{ id: w.id, lengthMm: 2000 }] } };
    expect(linesOf(typed).find(({ letter }) => letter === 'W')).toMatchObject({ lengthMm: 2000, measured: true });
    const tubing = { ...newStage('tubing', 'hose'), lengthM: 12 } as Stage;
    const long = { ...base, train: { ...base.train, stages: base.train.stages.toSpliced(6, 0, tubing) } };
    expect(linesOf(long).find(({ letter }) => letter === 'H')!.lengthMm).toBe(12_000);
  });
});

describe('the parts list', () => {
  const list = (template: System['template']): PricedPart[] => partsOf(made(template), solvedOf(made(template)));
  const count = (parts: readonly PricedPart[], part: string): number =>
    parts.filter((one) => one.part === part).reduce((sum, one) => sum + one.count, 0);
  it('fittings are counted from the ports, tees from where more than two meet', () => {
    const parts = list('marinePair');
    // 6 cartridges and tank with two ports each, two membranes with three: 12 + 6.
    const elbows = parts.filter(({ part }) => part.startsWith('elbow-'));
    expect(elbows.reduce((sum, one) => sum + one.count, 0)).toBe(18);
    expect(parts.filter(({ part }) => part.startsWith('tee-')).reduce((sum, one) => sum + one.count, 0)).toBe(1);
    expect(count(parts, 'element-household75')).toBe(2);
    expect(count(parts, 'restrictor-1.5')).toBe(1);
    expect(count(parts, 'float-valve')).toBe(1);
    expect(parts.find(({ part }) => part === 'bulkhead')!.why).toContain('11');
  });
  it('fittings go by tube and by the thread of what they enter: small housings have quarter-inch ports (common practice)', () => {
    const names = (template: System['template']): string[] =>
      list(template).flatMap(({ part, name }) => (part.startsWith('elbow') ? [name] : []));
    expect(names('marineHousehold')).toEqual(['Fitting 1/4 in, straight or elbow']);
    const skid = names('skid');
    expect(skid).toContain('Fitting DN 20 to 3/4 in thread, straight or elbow');
    expect(skid.filter((name) => name.includes('1/4 in'))).toEqual([]);
    expect(new Set(skid).size).toBe(skid.length);
  });
  it('tubing is cut with a tenth over, by colour', () => {
    const base = made('marinePair');
    const coloured = { ...base, build: { ...base.build, colours: { feed: 'red', product: 'blue', waste: 'black' } as const } };
    const red = partsOf(coloured, solvedOf(coloured)).find(({ part }) => part.startsWith('tube-') && part.endsWith('-red'))!;
    expect(red.count).toBeCloseTo(Math.ceil(11 * (1.5 + 0.15 + 0.15 + 0.42)) / 10, 9);
  });
  it.each(STAGE_KINDS)('%s: brings pieces with a reason, or is tubing', (kind) => {
    const stage = newStage(kind, 'x');
    const parts = stageKind(kind).parts(stage as never, { prices: priceList(made('marinePair')), units: made('marinePair').units });
    expect(parts.length > 0).toBe(kind !== 'tubing');
    for (const one of parts) {
      expect(one.why.length).toBeGreaterThan(2);
      expect(one.count).toBeGreaterThan(0);
    }
  });
  it('a price that is missing is counted, never guessed; one that was typed goes before that of the job', () => {
    const base = made('marineHousehold');
    const before = partsTotal(partsOf(base, solvedOf(base)), 0.1);
    expect(before.unpriced).toBeGreaterThan(10);
    const typed = {
      ...base,
      build: {
        ...base.build,
        partPrices: [
          { part: 'flush-valve', each: 12.5 },
          { part: 'element-household75', each: 50 },
        ],
      },
    };
    const after = partsTotal(partsOf(typed, solvedOf(typed)), 0.1);
    expect(after.unpriced).toBe(before.unpriced - 1);
    expect(after.parts - before.parts).toBeCloseTo(12.5 + 50 - base.prices.element, 9);
    expect(after.total).toBeCloseTo(1.1 * after.parts, 9);
  });
  it('a line of one’s own counts, and hook-up sets bring their pieces', () => {
    const base = made('marineHousehold');
    const more = {
      ...base,
      build: { ...base.build, hookUp: 'laundryTap' as const, ownParts: [{ id: 'own-1', name: 'Drip tray', count: 2, each: 4 }] },
    };
    const parts = partsOf(more, solvedOf(more));
    expect(parts.find(({ name }) => name === 'Drip tray')).toMatchObject({ group: 'own', price: 4, count: 2 });
    expect(parts.filter(({ group }) => group === 'hookUp')).toHaveLength(HOOK_UP_SETS.laundryTap.parts.length + 1);
    expect(partsCsv(parts, 'EUR')).toContain('Added by hand,Drip tray,added by hand,2,piece,4,8');
  });
  it('spares of a year are whole pieces, as often as they wear', () => {
    const spares = list('marinePair').filter(({ group }) => group === 'spares');
    expect(spares.map(({ name, count: many }) => [name.split(',')[0], many])).toEqual([
      ['Sediment cartridge', 2],
      ['Carbon block', 4],
    ]);
  });
  it('a boat gets a through-hull and hoses of four times the pressure, no drain saddle (common practice)', () => {
    const parts = list('watermaker');
    expect(parts.find(({ part }) => part === 'hp-hose')!.name).toContain('260');
    expect(count(parts, 'drain-saddle')).toBe(0);
    expect(count(parts, 'through-hull')).toBe(1);
  });
  it('tools come from what is built; the weight is the wet one', () => {
    expect(toolsFor(made('marineHousehold')).join()).toContain('11');
    expect(toolsFor(made('espressoBar'))).toContain('Drop kit for hardness');
    expect(toolsFor(made('resinVessel'))).not.toContain('Two measuring jugs, a clock');
    expect(standsSays(made('marinePair')).wetKg).toBeGreaterThan(8);
  });
});
