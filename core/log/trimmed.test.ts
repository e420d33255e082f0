import { expect, it } from 'vitest';
import type { System } from '../file';
import { systemFromTemplate } from '../template';
import { expectNear, value } from '../testing/close';
import { solveTrain, tapWater } from '../train';
import { membraneTrend, unitAsRead } from './membraneTrend';
import { simulatedLog, type LifeStory } from './simulated';

/** A restrictor that was cut half way through a year: what it passes more is the restrictor's, not the membrane's. */
it('a restrictor cut in between changes nothing of what is told of the membrane', () => {
  const made = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2025-01-01T00:00:00Z' });
  const withLength = (system: System, share: number): System => ({
    ...system,
    train: {
      ...system.train,
      stages: system.train.stages.map((stage) =>
        stage.kind === 'membrane' ? { ...stage, restrictor: { ...stage.restrictor, lengthMm: share * stage.restrictor.lengthMm } } : stage,
      ),
    },
  });
  const story = (from: string, seed: number): LifeStory => ({
    from,
    days: 175,
    everyDays: 7,
    waterPerYear: 0,
    saltPerYear: 0,
    jumps: [],
    filterChanges: [],
    filterDays: 4000,
    drift: {},
    seed,
  });
  const before = value(simulatedLog(withLength(made, 1), story('2025-01-10T08:00:00Z', 1))).readings;
  const after = value(simulatedLog(withLength(made, 0.6), story('2025-07-12T08:00:00Z', 2))).readings;
  const readings = [...before, ...after.map((one) => ({ ...one, id: `b${one.id}` }))];
  const cut = {
    id: 'cut',
    at: '2025-07-10T08:00:00Z',
    wasteL: 1,
    productL: 0.2,
    seconds: 60,
    pressureBar: null,
    temperatureC: null,
    restrictorLengthMm: 100,
  };
  const now: System = { ...withLength(made, 0.6), build: { ...made.build, ratios: [cut] } };
  expect(after[0]!.wasteLPerH! / before[0]!.wasteLPerH!).toBeGreaterThan(1.12);
  const unit = value(
    unitAsRead(now, readings, value(solveTrain(now.train, now.source, value(tapWater(now.source, now.instruments)).water)))!,
  );
  const trend = membraneTrend(now, readings, unit, '2026-01-05T08:00:00Z')!;
  expectNear(trend.water!.now.value, 0, 0.07, 'output');
  expect(trend.water!.unexplained).toEqual([]);
});
