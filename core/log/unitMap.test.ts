import { describe, expect, it } from 'vitest';
import { seeded } from '../numeric';
import { systemFromTemplate } from '../template';
import { expectNear, value } from '../testing/close';
import { solveTrain, tapWater } from '../train';
import { membraneTrend, unitAsRead, type MembraneTrend } from './membraneTrend';
import { probeRoles } from './series';
import { seenOf, showsAt } from './unitReading';
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
        const seen = seenOf(exact, reading, wide, probeRoles(exact))!;
        const hour = { temperatureC: seen.hour.temperatureC.value, lnBar: seen.hour.lnBar.value, lnTap: seen.hour.lnTap.value };
        const clean = { lnWater: 0, lnSalt: 0, lnRestrictor: 0, lnFilter: 0 };
        const shows = showsAt(wide, clean, hour, seen.knownAt);
        expectNear(seen.lnProduct!.value, shows.lnProduct, template === 'watermaker' ? 0.012 : 0.008, `product at ${temperatureC}`);
        expectNear(seen.lnPassage!.value, shows.lnPassage, 0.02, `passage at ${temperatureC}`);
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
  /** A log that begins clean and has been in a state for its last five weeks. */
  const told = (
    change: Partial<TrueState>,
    spoilt: (reading: ReturnType<typeof readIn>) => ReturnType<typeof readIn> = (one) => one,
  ): MembraneTrend => {
    const log = Array.from({ length: 10 }, (_, week) => ({
      ...spoilt(readIn(week < 5 ? {} : change)),
      id: `r${week}`,
      at: new Date(Date.parse(AT) + week * 7 * 86_400_000).toISOString(),
    }));
    return membraneTrend(pair.system, log, pair.unit, log.at(-1)!.at)!;
  };
  const output = (trend: MembraneTrend): number => trend.water!.now.value;
  it('cold water is cold water, not age', () => {
    expect(readIn({ temperatureC: 7 }).productLPerH! / readIn({ temperatureC: 18 }).productLPerH!).toBeLessThan(0.72);
    expectNear(output(told({ temperatureC: 8 })), 0, 0.02);
    expect(told({ temperatureC: 8 }).water!.unexplained).toEqual([]);
  });
  it('age is age, and a jump is dated to the reading it begins with', () => {
    const aged = told({ water: 0.8 });
    expectNear(output(aged), Math.log(0.8), 0.03);
    expect(aged.water!.unexplained.map(({ since }) => since.slice(0, 10))).toEqual(['2026-06-05']);
    const leaking = told({ salt: 1.6 });
    expectNear(leaking.salt!.now.value, Math.log(1.6), 0.06);
    expect(leaking.salt!.unexplained.map(({ since, direction }) => [since.slice(0, 10), direction])).toEqual([['2026-06-05', 'up']]);
    expectNear(output(leaking), 0, 0.03);
  });
  it('a filter that closes takes waste and product down together, and is none of the membrane’s', () => {
    expect(readIn({ loading: 0.9 }).productLPerH! / readIn({}).productLPerH!).toBeLessThan(0.94);
    const clogged = told({ loading: 0.9 });
    expect(clogged.filters!.value).toBeGreaterThan(0.04);
    expect(Math.abs(output(clogged))).toBeLessThan(0.04);
    expect(told({}).filters!.value).toBeLessThan(0.03);
  });
  it('without the waste it is less sure, and no filter is told of', () => {
    const part = told({}, (one) => ({ ...one, wasteLPerH: null }));
    expect(part.filters).toBeNull();
    expect(part.restrictor).toBeNull();
    expect(part.water!.now.sd).toBeGreaterThan(told({}).water!.now.sd);
  });
  it('without a flow nothing is said of the output; without probes nothing of the salt; with neither nothing at all', () => {
    const none = { productLPerH: null, wasteLPerH: null };
    expect(told({}, (one) => ({ ...one, ...none })).water).toBeNull();
    expect(told({}, (one) => ({ ...one, values: [] })).salt).toBeNull();
    const bare = { ...readIn({}), ...none, values: [] };
    expect(membraneTrend(pair.system, [bare], pair.unit, AT)).toBeNull();
  });
});
