import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading } from '../file';
import { solveTrain, tapWater } from '../train';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { logFindings } from './findings';
import { trackResin } from './resin';

/** A household unit with one resin, a meter before and one behind it, and a litres meter. */
const base = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const solved = value(solveTrain(base.train, base.source, value(tapWater(base.source, base.instruments)).water));
const START = Date.parse('2026-03-01T08:00:00Z');
const at = (day: number): string => new Date(START + day * 86_400_000).toISOString();

/** Litres a day of this household: a meter is believed that runs about as planned. */
const PER_DAY = 20;
/** Readings each after so many litres in all, with what the last probe shows, ppm. */
const readings = (life: readonly (readonly [litres: number, shown: number])[]): Reading[] =>
  life.map(([litres, shown], i) => ({
    id: `r${i}`,
    systemId: 's',
    at: at(litres / PER_DAY),
    values: [240, 5, shown].map((one, i) => ({ probeId: base.train.probes[i]!.id, instrumentId: 'meter', shown: one })),
    pressureBar: 4,
    temperatureC: 15,
    productLPerH: null,
    wasteLPerH: null,
    meterL: litres,
    ...NOTHING_SAID,
  }));
const track = (life: Parameters<typeof readings>[0]) => trackResin(base, readings(life), solved, at(1 + life.at(-1)![0] / PER_DAY))!;
/** Litres after which this share of what the limiting side can take is used. */
const perShare = (() => {
  const { points, capacityEq, limiting } = track([
    [0, 0],
    [1000, 0],
  ]);
  const last = points.at(-1)!;
  return (1000 * capacityEq) / (limiting === 'anion' ? last.anionEq : last.cationEq);
})();
/** What is said of the resin's outlet over its life, given as used shares and what the meter showed. */
function rise(life: readonly (readonly [used: number, shown: number])[]): string {
  const lived = life.map(([used, shown]) => [used * perShare, shown] as const);
  const found = logFindings(base, readings(lived), solved, track(lived), at(1 + lived.at(-1)![0] / PER_DAY)).find(
    ({ id }) => id === 'rise',
  );
  return found ? `[${found.severity}] ${found.title}. ${found.why}`.replaceAll('\u202f', ' ') : 'nothing';
}
/** An outlet on ln(out/in) = slope·(used − 1), with 5 ppm going in. */
const onSlope = (slope: number, shares: readonly number[], shift = 0): [number, number][] =>
  shares.map((used) => [used, 5 * Math.exp(slope * (used - 1)) + shift]);

describe('what a rise behind a single resin means (exchange section 6)', () => {
  it('a clean outlet says nothing', () =>
    expect(
      rise([
        [0, 0],
        [0.4, 0],
        [0.8, 0],
      ]),
    ).toBe('nothing'));
  it('late and steep is the end; past the goal the product itself says so', () => {
    const life: [number, number][] = [[0, 0], ...onSlope(10, [0.93, 0.95, 0.97, 0.99])];
    const lived = life.map(([used, shown]) => [used * perShare, shown] as const);
    const found = logFindings(base, readings(lived), solved, track(lived), at(1 + lived.at(-1)![0] / PER_DAY));
    expect(found.find(({ id }) => id === 'resin')).toMatchObject({
      severity: 'bad',
      title: expect.stringContaining('is exhausted') as string,
    });
    expect(found.find(({ id }) => id === 'product')).toMatchObject({ severity: 'bad' });
  });
  it('early and steep is a load that was under-counted', () =>
    expect(rise([[0, 0], ...onSlope(10, [0.93, 0.95, 0.97, 0.99]).map(([used, out]) => [used - 0.6, out] as [number, number])])).toMatch(
      /^\[note\] \S.* ends early: a steep rise from \d+ % of its capacity\. It takes up more than was counted, mostly CO₂, or holds less \(slope \d+\)\.$/,
    ));
  it('early and flat is water that slips past', () =>
    expect(rise([[0, 0], ...onSlope(1, [0.1, 0.2, 0.3, 0.4])])).toMatch(
      /^\[note\] Water slips past the resin: a flat, early rise from \d+ % of its capacity\. Exhausted resin rises ten times as steeply \(slope \d+\.\d\)\./,
    ));
  it('flat and late says nothing of a front: the product itself is past the goal', () => {
    const life: [number, number][] = [[0, 0], ...onSlope(1, [0.6, 0.7, 0.8, 0.9])];
    expect(rise(life)).not.toMatch(/near its end|ends early/);
  });
  it('more out than in is acid, or the meter', () =>
    expect(
      rise([
        [0, 0],
        [0.5, 6],
      ]),
    ).toMatch(
      /^\[bad\] More comes out of the resin than goes in, at \d+ % of its capacity\. Measure the pH: below 5 the anion side is exhausted/,
    ));
  it('a leap that comes back is the meter', () =>
    expect(
      rise([
        [0.2, 1],
        [0.205, 6],
        [0.21, 1],
      ]),
    ).toBe(
      '[note] One reading after the resin rose fivefold and fell back. That was the meter, not the resin. Clean the tip of the probe.',
    ));
});
