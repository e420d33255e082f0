import { NOTHING_SAID, type Reading, type System } from '@yes-clear/core/file';
import { trackResin } from '@yes-clear/core/log';
import { reportTrain, type TrainReport } from '@yes-clear/core/advice';
import { systemFromTemplate } from '@yes-clear/core/template';
import { tapWater } from '@yes-clear/core/train';
import { describe, expect, it } from 'vitest';
import { descentInput } from './descentInput';

const base = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
function report(system: System): TrainReport {
  const water = tapWater(system.source, system.instruments);
  const outcome = water.ok ? reportTrain(system, water.value.water) : water;
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}
const reading = (id: string, at: string, shown: readonly number[], meterL: number): Reading => ({
  id,
  systemId: 's',
  at,
  values: shown.map((value, i) => ({ probeId: base.train.probes[i]!.id, instrumentId: 'meter', shown: value })),
  pressureBar: null,
  temperatureC: null,
  productLPerH: null,
  wasteLPerH: null,
  meterL,
  ...NOTHING_SAID,
});
const readings = [reading('a', '2026-03-01T08:00:00Z', [238, 5, 0], 0), reading('b', '2026-03-20T08:00:00Z', [241, 7, 0], 700)];
const plain = (texts: readonly string[]): string[] => texts.map((text) => text.replaceAll('\u202f', ' '));

describe('what the picture is made from', () => {
  it('rings: the first reading as baseline, the last as latest', () => {
    const { probes } = descentInput(base, report(base), readings, null);
    expect(probes.map((probe) => [probe.baseline, probe.latest])).toEqual([
      [476, 482],
      [10, 14],
      [expect.any(Number), expect.any(Number)],
    ]);
    expect(plain(probes[0]!.texts)).toEqual(['read 482 µS/cm']);
  });
  it('a meter at 0 is blind: its ring stands on the line where the model is below its step', () => {
    const made = report(base);
    const after = made.solved.stations.find((station) => station.after === 'resin')!.state.ec25UScm;
    const { probes } = descentInput(base, made, readings, null);
    expect(probes[2]!.latest).toBe(after);
    expect(plain(probes[2]!.texts)).toEqual(['read 0 µS/cm']);
  });
  it('a meter at 0 where the model expects more stands at its step: the gap shows', () => {
    const bare = {
      ...base,
      train: { ...base.train, stages: base.train.stages.filter((stage) => stage.kind !== 'resin'), probes: base.train.probes.slice(0, 2) },
    };
    const { probes } = descentInput(bare, report(bare), [reading('a', '2026-03-01T08:00:00Z', [240, 0], 0)], null);
    expect(probes[1]!.latest).toBe(2);
  });
  it('fills each vessel with what it is: loading, spent resin, level', () => {
    const water = tapWater(base.source, base.instruments);
    const outcome = water.ok ? reportTrain(base, water.value.water, { sediment: { passedL: 4000 } }) : water;
    const made = outcome.ok ? outcome.value : report(base);
    const tracking = trackResin(base, readings, made.solved, '2026-03-20T09:00:00Z')!;
    const { fill } = descentInput(base, made, readings, tracking);
    // 4,000 L at 0.5 NTU are 2 g of the 10 it holds.
    expect(fill['sediment']).toBeCloseTo(0.2, 12);
    expect(fill['resin']).toBeCloseTo(1 - tracking.remaining.p50, 12);
    expect(fill['resin']).toBeGreaterThan(0.2);
  });
  it('names the waste at three lengths, the strongest facts last to go', () => {
    const { waste } = descentInput(base, report(base), [], null);
    const texts = plain(waste!.texts);
    expect(texts[0]).toMatch(/^waste to drain · \d+ µS\/cm · \d\.\d : 1$/);
    expect(texts[2]).toMatch(/^waste \d\.\d : 1$/);
    texts.slice(1).forEach((text, i) => expect(text.length).toBeLessThan(texts[i]!.length));
  });
  it.each([
    ['marine make-up', base, 'Goal: at most 1.0 ppm (below 2.0 µS/cm)'],
    [
      'a crew’s limit',
      { ...base, goal: { ...base.goal, id: 'windowCleaning', crewLimitPpm: 5 } } as System,
      'Goal: reads 5 ppm or less (below 11 µS/cm)',
    ],
    ['breeding', { ...base, goal: { ...base.goal, id: 'softWaterBreeding' } } as System, 'Goal: 20 µS/cm to 150 µS/cm'],
  ])('says the goal of %s', (_, system, text) => expect(plain(descentInput(system, report(system), [], null).goal!.texts)[0]).toBe(text));
});
