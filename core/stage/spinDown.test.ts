import { describe, expect, it } from 'vitest';
import { expectWithin } from '../testing/close';
import { wornTrain } from '../train';
import { systemFromTemplate } from '../template';
import { kindOf, newStage, type Stage, type StageOf } from '.';

const fresh = newStage('spinDown', 'spin');
const worn = (passedL: number, years: number, turbidityNTU: number, changes: Partial<StageOf<'spinDown'>> = {}): StageOf<'spinDown'> =>
  kindOf(fresh).worn({ ...fresh, ...changes }, { passedL, years }, turbidityNTU);

describe('a spin-down filter', () => {
  it('fills between two rinses by what passes in a day: litres × turbidity × share caught', () => {
    // 400 L a day for 14 days at 2 NTU, half of it caught: 5.6 g of 20.
    expectWithin(worn(400 * 365.25, 1, 2).loading, 5.6 / 20, 1e-9);
    // Twice as often, half as full; the year on the wall does not count.
    expectWithin(worn(400 * 365.25, 1, 2, { rinseEveryDays: 7 }).loading, 2.8 / 20, 1e-9);
    expectWithin(worn(3 * 400 * 365.25, 3, 2).loading, 5.6 / 20, 1e-9);
  });
  it('is never quite full, and stays as it was entered while the log says nothing', () => {
    expect(worn(1e7, 1, 50).loading).toBe(0.95);
    expect(kindOf(fresh).worn({ ...fresh, loading: 0.4 }, {}, 5).loading).toBe(0.4);
  });
  it('spares what stands behind it: the next filter loads with what goes on alone', () => {
    const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
    const use = { sediment: { passedL: 10_000, years: 1 }, spin: { passedL: 10_000, years: 1 } };
    const loading = (stages: Stage[]): number => {
      const filter = wornTrain({ ...system.train, stages }, 0.5, use).stages.find((stage) => stage.kind === 'sediment');
      return filter?.kind === 'sediment' ? filter.loading! : NaN;
    };
    const alone = loading(system.train.stages);
    expectWithin(alone, 0.5, 1e-9);
    expectWithin(loading([{ ...fresh, caughtShare: 0.7 }, ...system.train.stages]), 0.3 * alone, 1e-9);
  });
  it('asks for more frequent rinses once it is four fifths full', () => {
    const said = (loading: number): string[] =>
      kindOf(fresh)
        .findings({ stage: { ...fresh, loading } } as never)
        .map(({ title, why }) => `${title}. ${why}`);
    expect(said(0.79)).toEqual([]);
    expect(said(0.8)[0]).toContain('80\u202f% full before it is rinsed');
    expect(said(0.8)[0]).toContain('more often than every 14 days');
  });
  it('is rinsed again and again, and once at commissioning', () => {
    expect(kindOf(fresh).upkeep({ ...fresh, rinseEveryDays: 10 }, null)).toEqual([{ says: 'rinse', work: 'rinsed', everyDays: 10 }]);
    const [step] = kindOf(fresh).steps(fresh, {} as never);
    expect(step!.title).toBe('Rinse spin-down filter once');
    expect(step!.cautions!.map(({ title }) => title)).toEqual(['Stay with it']);
  });
  it('takes more pressure the fuller it is, and more from cold water', () => {
    const slope = (loading: number, temperatureC: number): number => kindOf(fresh).slopeBar({ ...fresh, loading }, 200, temperatureC);
    expectWithin(slope(0.5, 25), 2 * slope(0, 25), 1e-9);
    expectWithin(slope(0, 25) * 227.124707, 0.03, 1e-9);
    expect(slope(0, 5)).toBeGreaterThan(1.5 * slope(0, 25));
  });
});
