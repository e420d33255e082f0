import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { NOTHING_SAID, type Reading, type System } from '../file';
import { DAY_MS } from '../quantity';
import { calendar, daysUntil } from './resinDate';
import { levelFrom, litresCounted } from './litres';
import { usePlan } from './usePlan';

const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
/** A system that draws so many litres on each weekday, with a season and days away. */
const drawing = (dayL: readonly number[], change: Partial<System['goal']['demand']> = {}, away: System['away'] = []): System => ({
  ...base,
  away,
  goal: { ...base.goal, demand: { ...base.goal.demand, per: 'day', dayL: [...dayL], batches: [], season: null, ...change } },
});
/** A reading of one day of January that holds the litres meter alone. */
const reading = (day: number, meterL: number | null): Reading => ({
  id: `r${day}`,
  systemId: 's',
  at: new Date(Date.UTC(2026, 0, day)).toISOString(),
  values: [],
  pressureBar: null,
  temperatureC: null,
  productLPerH: null,
  wasteLPerH: null,
  meterL,
  ...NOTHING_SAID,
});
const day = (n: number): number => Date.UTC(2026, 0, n);
const every = (litres: number): number[] => new Array<number>(7).fill(litres);

describe('the planned use', () => {
  it('is drawn on its weekdays: by hand', () => {
    const saturdays = usePlan(drawing([0, 0, 0, 0, 0, 70, 0]));
    // 3 January 2026 is a Saturday.
    expect(saturdays.between(day(1), day(3))).toBe(0);
    expect(saturdays.between(day(1), day(3) + 6 * 3_600_000)).toBeCloseTo(17.5, 9);
    expect(saturdays.between(day(1), day(15))).toBeCloseTo(140, 9);
  });
  it('swings over the year about its mean, most in its busiest month', () => {
    const plan = usePlan(drawing(every(10), { season: { share: 0.3, busiestMonth: 7 } }));
    expect(plan.onDay(Date.UTC(2026, 6, 16))).toBeCloseTo(13, 1);
    expect(plan.onDay(Date.UTC(2026, 0, 15))).toBeCloseTo(7, 1);
    expect(plan.between(Date.UTC(2026, 0, 1), Date.UTC(2027, 0, 1))).toBeCloseTo(3650, -1);
  });
  it('counts days away by the share that goes on', () => {
    const plan = usePlan(drawing(every(10), {}, [{ id: 'a', from: '2026-01-05', days: 4, share: 0.25 }]));
    expect(plan.between(day(1), day(11))).toBeCloseTo(60 + 4 * 2.5, 9);
  });
  it('L28: four metered weeks at 20 ± 0.15 on a plan of 24 ± 0.35', () => {
    const { level, sd } = levelFrom(20 * 28, 24 * 28, 4);
    expect(24 * level).toBeCloseTo(20.161, 2);
    expect(sd).toBeCloseTo(0.07334, 4);
    expect(levelFrom(0, 0, 0)).toEqual({ level: 1, sd: 0.35 });
  });
});

describe('litres by the meter', () => {
  const passed = (system: System, readings: readonly Reading[], from: number, to: number): number => {
    const { at } = litresCounted(system, readings);
    return at(day(to)) - at(day(from));
  };
  const plain = drawing(every(20));
  it('between two at which it was read, whatever was read between', () => {
    expect(passed(plain, [reading(1, 100), reading(2, null), reading(8, 170)], 1, 8)).toBeCloseTo(70, 9);
    // Shared out by the plan in between.
    expect(passed(plain, [reading(1, 100), reading(2, null), reading(8, 170)], 1, 2)).toBeCloseTo(10, 9);
  });
  it('a figure that fits neither of its neighbours is passed over', () => {
    const log = [reading(1, 1000), reading(8, 1140), reading(15, 128), reading(22, 1420)];
    expect(passed(plain, log, 1, 22)).toBeCloseTo(420, 9);
    expect([...litresCounted(plain, log).odd]).toEqual(['r15']);
  });
  it('a figure that somebody confirmed is believed, however much it is', () => {
    const leap = { ...reading(2, 1400), confirmed: ['meterL'] };
    expect(passed(plain, [reading(1, 1000), leap], 1, 2)).toBeCloseTo(400, 9);
    expect(passed(plain, [reading(1, 1000), reading(2, 1400)], 1, 2)).toBeLessThan(100);
  });
  it('a meter that was replaced goes on from its own figure; what passed meanwhile is the plan’s', () => {
    const log = [reading(1, 900), reading(8, 1040), reading(15, 20), reading(22, 160)];
    expect(passed(plain, log, 15, 22)).toBeCloseTo(140, 9);
    expect(passed(plain, log, 8, 15)).toBeGreaterThan(100);
    expect(litresCounted(plain, log).toldBy(day(1), day(22))).toBe('both');
  });
  const meter = (change: Partial<System['train']['meter']>): System => ({
    ...plain,
    train: { ...plain.train, meter: { ...plain.train.meter, ...change } },
  });
  it('L27: begins again behind its last figure, known or not', () => {
    const log = [reading(1, 99_870), reading(15, 312)];
    expect(passed(meter({ rollsOverL: 100_000 }), log, 1, 15)).toBeCloseTo(442, 9);
    expect(passed(plain, log, 1, 15)).toBeCloseTo(442, 9);
  });
  it('counts down below nought, and what it shows less than it was set to has passed since it was set anew', () => {
    const down = meter({ counts: 'down', setToL: 1200 });
    const log = [reading(1, 200), reading(11, 0), reading(16, -100), reading(21, 1150)];
    expect(passed(down, log, 1, 16)).toBeCloseTo(300, 9);
    const { spans, setAnew } = litresCounted(down, log);
    expect(setAnew).toHaveLength(1);
    expect(spans.at(-1)).toMatchObject({ litres: 50, metered: true });
    expect(new Date(setAnew[0]!).getUTCDate()).toBe(18);
  });
  it('without a meter it is the plan', () => {
    expect(passed(plain, [], 1, 11)).toBeCloseTo(200, 9);
    expect(litresCounted(plain, []).toldBy(day(1), day(11))).toBe('design');
  });
});

describe('the day on which so many litres have passed', () => {
  /** Litres of a plan of 1 a day stand for days of mean use. */
  const flat = usePlan(drawing(every(1)));
  it('L30: before a busy season and after it', () => {
    const swinging = usePlan(drawing(every(1), { season: { share: 0.25, busiestMonth: 7 } }));
    const peak = Date.UTC(2026, 6, 16, 16);
    expect(calendar(swinging, peak - 90 * DAY_MS)(0.25 / 0.006)).toBeCloseTo(38.41, 0);
    expect(calendar(swinging, peak + 90 * DAY_MS)(0.25 / 0.006)).toBeCloseTo(45.7, 0);
    expect(calendar(flat, peak)(0.25 / 0.006)).toBeCloseTo(41.67, 1);
  });
  it('is a band that holds the doubt of the use, and is later by holidays nobody told of', () => {
    const sure = daysUntil(() => 30, { level: 1, sd: 0 }, flat, day(1))!;
    const unsure = daysUntil(() => 30, { level: 1, sd: 0.35 }, flat, day(1))!;
    expect(sure.p10).toBeLessThan(30);
    expect(sure.p90).toBeGreaterThan(40);
    expect(unsure.p90 - unsure.p10).toBeGreaterThan(sure.p90 - sure.p10);
    expect(daysUntil(() => 30, { level: 2, sd: 0 }, flat, day(1))!.p50).toBeLessThan(sure.p50);
  });
  it('waits for the weekend where all is drawn then, and never comes where nothing is', () => {
    const saturdays = usePlan(drawing([0, 0, 0, 0, 0, 70, 0]));
    // 1 January is a Thursday; 70 L are drawn by the end of the Saturday.
    expect(calendar(saturdays, day(1))(70)).toBeCloseTo(3, 6);
    expect(daysUntil(() => 30, { level: 1, sd: 0.1 }, usePlan(drawing(every(0))), day(1))).toBeNull();
  });
});
