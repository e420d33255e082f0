import { describe, expect, it } from 'vitest';
import { seeded } from '../numeric';
import { systemFromTemplate } from '../template';
import { expectNear, value } from '../testing/close';
import { solveTrain, tapWater } from '../train';
import { factorsOf } from './factors';
import { unitAsRead } from './membraneTrend';
import { probeRoles } from './series';
import { readingOf, solvedIn, type TrueState } from './simulated';

const AT = '2026-05-01T08:00:00Z';
const PLAIN: TrueState = { temperatureC: 15, linePressureBar: 4, tap: 1, water: 1, salt: 1, loading: 0, slips: 0 };
const NO_SCATTER = { meter: 0, jug: 0, gauge: 0, temperatureC: 0 };
const made = (template: Parameters<typeof systemFromTemplate>[0]['template']) => {
  const system = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: AT });
  const feed = value(tapWater(system.source, system.instruments)).water;
  const fresh = value(solveTrain(system.train, system.source, feed));
  return { system, feed, fresh, unit: value(unitAsRead(system, [], fresh)!) };
};

describe('a unit’s answers, laid down once', () => {
  it.each(['marineHousehold', 'marinePair', 'vanCart', 'skid', 'watermaker'] as const)(
    '%s: within 0.6 % of the whole train solved, in states anywhere in its range',
    (template) => {
      const { system, feed, unit } = made(template);
      const chance = seeded(7);
      for (let i = 0; i < 12; i++) {
        const state: TrueState = {
          ...PLAIN,
          temperatureC: chance.between(6, 20),
          linePressureBar: system.source.linePressureBar * chance.between(0.85, 1.1),
          // The sea hardly changes; fresh water does.
          tap: template === 'watermaker' ? chance.between(0.97, 1.03) : chance.between(0.9, 1.1),
          water: chance.between(0.65, 1.05),
          salt: chance.between(0.9, 1.25),
        };
        const solved = value(solvedIn(system, feed, state));
        const behind = solved.stations.find(({ kind }) => kind === 'membrane')!;
        const shows = unit.map.shows({
          temperatureC: state.temperatureC,
          membraneBar: solved.unit!.feedPressureBar,
          lnWater: Math.log(state.water),
          lnSalt: Math.log(state.salt),
          lnRestrictor: 0,
          lnTap: Math.log(state.tap),
        });
        expectNear(shows[0], Math.log(solved.unit!.permeateLPerH), 0.006, 'product');
        expectNear(shows[1], Math.log(solved.unit!.concentrateLPerH), 0.005, 'waste');
        expectNear(shows[2], Math.log(behind.state.ec25UScm / solved.stations[0]!.state.ec25UScm), 0.025, 'passage');
      }
    },
  );
});

describe('a membrane read through its conditions', () => {
  // Membrane chapter, 7: a clean skid simulated at 25 °C and again at 14 °C keeps factors of 1.000.
  it.each(['skid', 'marinePair', 'watermaker'] as const)(
    '%s: clean at any temperature, pressure and tap is told to be clean',
    (template) => {
      const { system, feed, unit } = made(template);
      for (const [temperatureC, line, tap] of [
        [25, 1, 1],
        [14, 0.92, 1.12],
        [8, 1.05, 0.95],
      ] as const) {
        const state = { ...PLAIN, temperatureC, linePressureBar: system.source.linePressureBar * line, tap };
        const solved = value(solvedIn(system, feed, state));
        const exact = { ...system, instruments: system.instruments.map((one) => ({ ...one, resolution: 0.001 })) };
        const reading = readingOf(exact, solved, state, { id: 'r', at: AT, meterL: null }, seeded(1), NO_SCATTER);
        const wide = value(unitAsRead(exact, [reading], value(solveTrain(system.train, system.source, feed)))!);
        const factors = factorsOf(exact, reading, wide, probeRoles(exact))!;
        expectNear(factors.lnWater!.value, 0, template === 'watermaker' ? 0.012 : 0.006, `water at ${temperatureC}`);
        expectNear(factors.lnSalt!.value, 0, 0.02, `salt at ${temperatureC}`);
      }
      expect(unit.map.hasRestrictor).toBe(template !== 'watermaker');
    },
  );

  const pair = made('marinePair');
  const readIn = (change: Partial<TrueState>) => {
    const state = { ...PLAIN, ...change };
    const solved = value(solvedIn(pair.system, pair.feed, state));
    return readingOf(pair.system, solved, state, { id: 'r', at: AT, meterL: null }, seeded(1), NO_SCATTER);
  };
  const told = (change: Partial<TrueState>) => factorsOf(pair.system, readIn(change), pair.unit, probeRoles(pair.system))!;
  it('cold water is cold water, not age', () => {
    const warm = readIn({ temperatureC: 18 });
    const cold = readIn({ temperatureC: 7 });
    expect(cold.productLPerH! / warm.productLPerH!).toBeLessThan(0.72);
    expectNear(told({ temperatureC: 7 }).lnWater!.value, told({ temperatureC: 18 }).lnWater!.value, 0.01);
  });
  it('age is age', () => {
    expectNear(told({ water: 0.8 }).lnWater!.value - told({}).lnWater!.value, Math.log(0.8), 0.02);
    expectNear(told({ salt: 1.5 }).lnSalt!.value - told({}).lnSalt!.value, Math.log(1.5), 0.05);
  });
  it('a filter that closes takes waste and product down together', () => {
    const clogged = told({ loading: 0.9 });
    const clean = readIn({});
    const now = readIn({ loading: 0.9 });
    expect(now.productLPerH! / clean.productLPerH!).toBeLessThan(0.94);
    expect(clogged.filterShare!.value).toBeGreaterThan(0.05);
    expect(Math.abs(clogged.lnWater!.value)).toBeLessThan(0.04);
  });
  it('without the waste it is said to be less sure, and no filter is told of', () => {
    const whole = told({});
    const part = factorsOf(pair.system, { ...readIn({}), wasteLPerH: null }, pair.unit, probeRoles(pair.system))!;
    expect(part.filterShare).toBeNull();
    expect(part.lnWater!.sd).toBeGreaterThan(0.05);
    expect(whole.filterShare!.sd).toBeLessThan(0.12);
  });
  it('without a flow nothing is said of the output; without probes nothing of the salt; with neither nothing at all', () => {
    const bare = { ...readIn({}), productLPerH: null, wasteLPerH: null };
    const roles = probeRoles(pair.system);
    expect(factorsOf(pair.system, bare, pair.unit, roles)).toMatchObject({ lnWater: null });
    expect(factorsOf(pair.system, { ...readIn({}), values: [] }, pair.unit, roles)).toMatchObject({ lnSalt: null });
    expect(factorsOf(pair.system, { ...bare, values: [] }, pair.unit, roles)).toBeNull();
  });
});
