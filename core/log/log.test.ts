import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading, type System } from '../file';
import { expectNear, expectWithin, value } from '../testing/close';
import { settleWater } from '../water';
import { solveTrain, tapWater, type SolvedTrain } from '../train';
import { systemFromTemplate } from '../template';
import { baselineOf, inOrder, probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
import { futureFinding, logFindings } from './findings';
import { parseQuickLine, typedUnits, type QuickLine } from './quickline';
import { trackResin } from './resin';

const base = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const parse = (line: string): QuickLine => parseQuickLine(line, base);
const plain = (text: string): string => text.replaceAll('\u202f', ' ');

describe('what the membrane holds back', () => {
  const counter = systemFromTemplate({ id: 'c', name: 'Counter', site: 'Bench', template: 'counterHard', at: '2026-01-01T00:00:00Z' });
  const solved = value(solveTrain(counter.train, counter.source, value(tapWater(counter.source, counter.instruments)).water));
  it('a blend behind it is not taken for a tired membrane', () => {
    const at = (after: string): number => solved.stations.find((station) => station.after === after)!.state.ec25UScm;
    const read = (probe: { id: string; after: string; instrumentId: string }) => ({
      probeId: probe.id,
      instrumentId: probe.instrumentId,
      shown: at(probe.after),
    });
    const reading = { values: counter.train.probes.map(read), temperatureC: 25 } as unknown as Reading;
    const roles = probeRoles(counter);
    expect(roles.blendShare).toBe(0.16);
    const permeate = value(settleWater(solved.unit!.permeate!)).ec25UScm;
    expectNear(saltRemoved(reading, roles, counter.instruments)!, 1 - permeate / at('tap'), 0.005);
    expect(saltRemoved(reading, { ...roles, blendShare: 0 }, counter.instruments)!).toBeLessThan(0.85);
  });
});

describe('the quick line', () => {
  it('reads the line of the handbook', () => {
    const { reading, tokens, problem, spelled } = parse('311 10 0 59psi 11C 410/1500ml');
    expect(problem).toBeNull();
    expect(reading.values.map((v) => v.shown)).toEqual([311, 10, 0]);
    expectWithin(reading.pressureBar!, 59 * 0.0689475729, 1e-6);
    expect(reading.temperatureC).toBe(11);
    expectWithin(reading.productLPerH!, 24.6, 1e-9);
    expectWithin(reading.wasteLPerH!, 90, 1e-9);
    expect(tokens.map((t) => t.kind)).toEqual(['probe', 'probe', 'probe', 'pressure', 'temperature', 'flows']);
    expect(plain(spelled)).toBe(
      'tap 311 ppm · after membrane 10 ppm · after resin 0 ppm · 59 psi · 11 °C · product 410, waste 1500 mL/min',
    );
  });
  it.each<[string, (line: QuickLine) => unknown, unknown]>([
    ['300 9 0 4,1 bar', (l) => l.reading.pressureBar, 4.1],
    ['300 9 0 52 F', (l) => Math.round(l.reading.temperatureC! * 10) / 10, 11.1],
    ['620us 9 0', (l) => l.reading.values[0]!.shown, 310],
    ['300 9 0 5230L', (l) => l.reading.meterL, 5230],
    ['300 9 0 410 / 1500 ml', (l) => l.reading.wasteLPerH, 90],
    ['300 9 0 pre-filter changed', (l) => [l.reading.note, l.reading.values.length], ['pre-filter changed', 3]],
    ['300', (l) => l.reading.values.length, 1],
    ['300 9 0 1 cup/4 cup', (l) => [l.reading.values.length, l.reading.wasteLPerH! / l.reading.productLPerH!], [3, 4]],
    ['300 9 0 1 cups / 3 3/4 cups', (l) => l.reading.wasteLPerH! / l.reading.productLPerH!, 3.75],
    ['300 9 0 1-3/8 cups/5½ cups', (l) => l.reading.wasteLPerH! / l.reading.productLPerH!, 4],
    ['300 9 0 1/4 cup/1 cup', (l) => l.reading.wasteLPerH! / l.reading.productLPerH!, 4],
    ['300 9 0 410/-ml', (l) => [l.reading.productLPerH, l.reading.wasteLPerH], [24.6, null]],
    ['300 9 0 -/1500ml', (l) => [l.reading.productLPerH, l.reading.wasteLPerH], [null, 90]],
    ['300 9 0 85L/h 610 L/h', (l) => [l.reading.productLPerH, l.reading.wasteLPerH], [85, 610]],
    ['- 9 11C', (l) => [l.reading.values.map((v) => v.shown), l.reading.temperatureC], [[9], 11]],
    [
      '300 9 0 410ml/1.5L 59psi',
      (l) => [Math.round(l.reading.productLPerH! * 10), l.reading.wasteLPerH, l.reading.values.length],
      [246, 90, 3],
    ],
  ])('%s', (line, of, expected) => {
    const parsed = parse(line);
    expect(parsed.problem).toBeNull();
    expect(of(parsed)).toEqual(expected);
  });
  it.each([
    ['1 2 3 4', 'one number too many'],
    ['300 9 0 5furlong', 'not a unit known here'],
    ['300 9 0 5bar 60psi', 'given twice'],
    ['300 9 0 400psi 999C', 'accepted is'],
    ['-300 9 0', 'accepted is'],
    ['', 'at least one number'],
    ['only words', 'at least one number'],
  ])('“%s” says what is wrong', (line, part) => expect(parse(line).problem).toContain(part));
  it('knows the units it was typed in, so that it is asked about in those', () => {
    const units = base.units;
    expect(typedUnits(parse('299 8 0 59psi 52F 1 cup/4 cups 1200gal'), units)).toMatchObject({
      pressure: 'psi',
      temperature: '°F',
      volume: 'gal',
    });
    expect(typedUnits(parse('299 8 0 4bar 11C 410/1500ml 48250L'), units)).toMatchObject({
      pressure: 'bar',
      temperature: '°C',
      flow: 'mL/min',
      volume: 'L',
    });
    expect(typedUnits(parse('299 8 0'), units)).toEqual(units);
  });
  it('covers every character typed that is not a space, on any text, without throwing', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[0-9 ./,a-zA-Z°µ-]{0,40}$/)), (line) => {
        const { tokens, reading } = parse(line);
        const covered = tokens
          .map((t) => line.slice(t.start, t.end))
          .join('')
          .replace(/\s/g, '');
        expect(covered.length).toBe(line.replace(/\s/g, '').length);
        for (const v of reading.values) expect(Number.isFinite(v.shown)).toBe(true);
      }),
      { numRuns: 1500 },
    );
  });
});

const DAY = 86_400_000;
const start = Date.parse('2026-03-01T08:00:00Z');
const reading = (day: number, values: readonly number[], change: Partial<Reading> = {}): Reading => ({
  id: `r${day}`,
  systemId: 's',
  at: new Date(start + day * DAY).toISOString(),
  values: values.map((shown, i) => ({ probeId: base.train.probes[i]!.id, instrumentId: 'meter', shown })),
  pressureBar: 4,
  temperatureC: 15,
  productLPerH: null,
  wasteLPerH: null,
  meterL: null,
  ...NOTHING_SAID,
  ...change,
});
const solvedOf = (s: System): SolvedTrain => value(solveTrain(s.train, s.source, value(tapWater(s.source, s.instruments)).water));
const solved = solvedOf(base);
const at = (day: number): string => new Date(start + day * DAY).toISOString();

describe('series', () => {
  it('knows which probe tells what', () => {
    const roles = probeRoles(base);
    expect([roles.tap?.name, roles.afterMembrane?.name, roles.beforeResin?.name, roles.afterResin?.name]).toEqual([
      'Tap',
      'After membrane',
      'After membrane',
      'After resin',
    ]);
  });
  it('salt removed: 300 to 9 ppm is 97 %', () =>
    expectWithin(saltRemoved(reading(0, [300, 9, 0]), probeRoles(base), base.instruments)!, 0.97, 1e-5));
  it('gives null for a tap purer than water can be: it was not read', () => {
    expect(saltRemoved(reading(0, [0, 9, 0]), probeRoles(base), base.instruments)).toBeNull();
    expect(saltRemoved(reading(0, [0.001, 9, 0]), probeRoles(base), base.instruments)).toBeNull();
  });
  it('gives null without both probes', () => expect(saltRemoved(reading(0, [300]), probeRoles(base), base.instruments)).toBeNull());
  it('ratio, order and EC', () => {
    expect(readingRatio(reading(0, [], { productLPerH: 10, wasteLPerH: 40 }))).toBe(4);
    expect(readingRatio(reading(0, []))).toBeNull();
    expect(inOrder([reading(5, [1]), reading(1, [1])]).map((r) => r.id)).toEqual(['r1', 'r5']);
    expect(probeEc25(reading(0, [300]), 'probe-tap', base.instruments)).toBe(600);
  });
});

describe('a clock that was set back', () => {
  it('is told beside the readings that lie ahead of it, and not a minute too soon', () => {
    const readings = [reading(0, [240, 5, 0]), reading(7, [240, 5, 0])];
    const says = (now: string): string | undefined => futureFinding(readings, now)?.title;
    expect(says(at(8))).toBeUndefined();
    expect(says(at(7))).toBeUndefined();
    expect(says(at(6))).toBe('1 reading lies ahead of this device’s clock');
    expect(says(at(-1))).toBe('2 readings lie ahead of this device’s clock');
    expect(futureFinding(readings, at(6))!.why).toMatch(/It is of \d+ \w+ 2026; the clock says \d+ \w+ 2026\. Set the clock right/);
    expect(logFindings(base, readings, solved, trackResin(base, readings, solved, at(6)), at(6))[0]!.id).toBe('future');
  });
});

describe('resin in the log', () => {
  const metered = (litresPerDay: number): Reading[] =>
    [0, 7, 14, 21, 28].map((day) => reading(day, [240, 5, 0], { meterL: 1000 + day * litresPerDay }));
  it('is null before the first reading', () => expect(trackResin(base, [], solved, at(1))).toBeNull());
  it('counts seen and unseen load: the worked example of section 6.1', () => {
    // 28 days of 20 L: 560 L; the anion side also takes CO2 and silica, which no meter shows.
    const t = trackResin(base, metered(20), solved, at(28))!;
    expectWithin(t.litres, 560, 1e-9);
    expect(t.volumeFrom).toBe('meter');
    expect(t.anionEq).toBeGreaterThan(t.cationEq * 2);
    expect(t.limiting).toBe('anion');
    expectWithin(t.ratePerDayEq, t.anionEq / 28, 1e-6);
  });
  it('more litres or a dirtier feed leave less', () => {
    const left = (readings: Reading[]): number => trackResin(base, readings, solved, at(28))!.remaining.p50;
    expect(left(metered(30))).toBeLessThan(left(metered(20)));
    const dirty = metered(20).map((r) => ({ ...r, values: r.values.map((v, i) => (i === 1 ? { ...v, shown: 15 } : v)) }));
    expect(left(dirty)).toBeLessThan(left(metered(20)));
  });
  it('falls with every reading and its band holds the middle', () => {
    const t = trackResin(base, metered(20), solved, at(28))!;
    t.points.slice(1).forEach((point, i) => expect(point.remaining.p50).toBeLessThan(t.points[i]!.remaining.p50));
    expect(t.remaining.p10).toBeLessThan(t.remaining.p50);
    expect(t.remaining.p50).toBeLessThan(t.remaining.p90);
    expect(t.daysLeft!.p10).toBeLessThan(t.daysLeft!.p90);
  });
  it('without a meter the planned use stands in, and it is said', () => {
    const t = trackResin(base, [reading(0, [240, 5, 0]), reading(7, [240, 5, 0])], solved, at(7))!;
    expect([t.volumeFrom, t.rateFrom]).toEqual(['design', 'design']);
    expectWithin(t.litres, 140, 1e-6);
    expect(
      logFindings(base, [reading(0, [240, 5, 0]), reading(7, [240, 5, 0])], solved, t, at(7))
        .map((f) => f.why)
        .join(),
    ).toContain('planned use');
  });
  it('starts anew when a cartridge is fitted', () => {
    const fresh: System = {
      ...base,
      train: { ...base.train, stages: base.train.stages.map((s) => (s.kind === 'resin' ? { ...s, fittedOn: '2026-03-22' } : s)) },
    };
    const t = trackResin(fresh, metered(20), solvedOf(fresh), at(28))!;
    expectWithin(t.litres, 160, 0.2);
  });
});

describe('what the log says', () => {
  const says = (readings: Reading[]): string =>
    plain(
      logFindings(base, readings, solved, trackResin(base, readings, solved, at(30)), at(30))
        .map((f) => `${f.severity} ${f.title}`)
        .join('\n'),
    );
  it('product within the goal', () => expect(says([reading(0, [240, 5, 0])])).toContain('good Product reads'));
  it('product above the goal', () => expect(says([reading(0, [240, 5, 4])])).toContain('bad Product reads 8.0 µS/cm'));
  it('salt passage that doubled', () =>
    expect(says([reading(0, [240, 5, 0]), reading(20, [240, 12, 0])])).toMatch(/mind Salt removed 95\.0 %, was 97\.9 %/));
  it('is told against the hand-over, not against what stood there before it', () => {
    const readings = [reading(0, [240, 5, 0]), reading(10, [240, 9, 0]), reading(20, [240, 12, 0])];
    const over = { ...base, build: { ...base.build, commissioned: { at: at(10), train: base.train, readingId: readings[1]!.id } } };
    expect(baselineOf(over, readings)).toBe(readings[1]);
    expect(baselineOf(base, readings)).toBe(readings[0]);
    const told = logFindings(over, readings, solved, trackResin(over, readings, solved, at(30)), at(30)).find(
      ({ id }) => id === 'removal',
    )!;
    expect(plain(told.title)).toBe('Membrane holds back 95.0 % of the salt');
  });
  it('a probe far from the model', () => expect(says([reading(0, [240, 40, 0])])).toContain('mind After membrane reads 80 µS/cm'));
  it('a ratio out of its range', () =>
    expect(says([reading(0, [240, 5, 0], { productLPerH: 10, wasteLPerH: 20 })])).toContain('Waste to product was 2.0 : 1'));
  it('nothing yet', () => expect(says([])).toContain('0 readings so far'));
});
