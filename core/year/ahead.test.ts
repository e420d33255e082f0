import { describe, expect, it } from 'vitest';
import { standing } from '../log';
import { runToEnd } from '../numeric';
import { DEMO_FILES, DEMO_NOW, readDemo } from '../testing/demo';
import { solveTrain, tapWater } from '../train';
import { strengthened } from '../water';
import {
  aheadOf,
  AS_USUAL,
  outlookFindings,
  outlookOf,
  outlookTitle,
  PLAIN_POLICY,
  simulateYears,
  USUAL_PACE,
  USUAL_YEAR_DOUBTS,
  vanShare,
  vanYear,
  withWhatIf,
  yearBands,
  yearPage,
  type Ahead,
  type Outlook,
  type YearBands,
  type YearRun,
} from '.';
import { gridTable } from '../numeric';

const must = <T>(outcome: { ok: true; value: T } | { ok: false; error: { message: string } }): T => {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
};
const laidOut = (name: (typeof DEMO_FILES)[number]) => {
  const { system, readings } = readDemo(name);
  const tap = must(tapWater(system.source, system.instruments));
  const today = must(standing(system, readings, tap.water, DEMO_NOW, tap));
  return { system, today, feed: tap.water, ahead: must(aheadOf(system, today, tap.water, Date.parse(DEMO_NOW))) };
};
const ALL = DEMO_FILES.map((name) => ({ name, ...laidOut(name) }));
const sum = (values: ArrayLike<number>): number => Array.from(values).reduce((total, value) => total + value, 0);

describe('a table over a grid', () => {
  it('is exact where the logarithm is a polynomial of the nodes’ degree', () => {
    const table = gridTable(
      [
        [0, 1, 3],
        [2, 5],
      ],
      (x, y) => Math.exp(0.3 * x! ** 2 - x! + 0.2 * y!),
    );
    expect(table(2, 4)).toBeCloseTo(Math.exp(0.3 * 4 - 2 + 0.8), 10);
    expect(table(1, 2)).toBeCloseTo(Math.exp(0.3 - 1 + 0.4), 10);
  });
});

describe.each(ALL)('the year of $name', ({ system, today, feed, ahead }) => {
  const run = must(simulateYears(ahead.plant, 365));

  it('keeps its books: litres, feed and waste, equivalents, money by month', () => {
    expect(run.startLevelL + sum(run.madeL) - sum(run.deliveredL) - run.endLevelL).toBeCloseTo(0, 5);
    expect(run.feedL).toBeCloseTo(sum(run.madeL) + run.wasteL, 4);
    const total = run.monthly.reduce((all, month) => all + sum(Object.values(month)), 0);
    expect(total).toBeCloseTo(run.totalCost, 6);
    if (ahead.plant.resin) expect(run.startMeq + run.loadMeq).toBeCloseTo(run.takenOutMeq + run.inBedMeq, 4);
  });
  it('is told of without a figure that is none, and adds up on paper', () => {
    const outlook = must(outlookOf(ahead, 365, AS_USUAL, { ...PLAIN_POLICY, bundleDays: 21 }));
    const bands = must(runToEnd(yearBands(ahead.plant, 365, PLAIN_POLICY, USUAL_YEAR_DOUBTS, { seed: 1, points: 16, replicates: 2 })));
    const findings = outlookFindings(outlook, bands, null, system.units, 'EUR', true);
    expect(findings.length).toBeGreaterThan(0);
    const text = [outlookTitle(outlook, system.units, 'EUR'), ...findings.flatMap(({ title, why }) => [title, why])].join('\n');
    expect(text).not.toMatch(/NaN|undefined|Infinity/);
    expect(text).toContain(`${outlook.run.visits} visit`);
    const table = yearPage(outlook, bands, system.units, 'EUR').filter((block) => block.kind === 'table');
    expect(table[0]!.rows).toHaveLength(outlook.run.visits);
    const amounts = table[1]!.rows.map((row) => Number(row[1]));
    expect(Math.abs(amounts.slice(0, -1).reduce((a, b) => a + b, 0) - amounts.at(-1)!)).toBeLessThan(6);
  });
  it('makes on any day what the train solved for that day makes, within two in a hundred', () => {
    if (!today.report.solved.unit) return;
    const stage = today.report.train.stages.find(({ id }) => id === today.report.solved.unitStageId)!;
    if (stage.kind !== 'membrane') return;
    for (const [temperatureC, strength] of [
      [8, 1],
      [17, 1.2],
    ] as const) {
      const solved = must(
        solveTrain({ ...today.report.train, branches: [], loop: null }, system.source, { ...strengthened(feed, strength), temperatureC }),
      );
      const { productionLPerH } = ahead.plant.response(temperatureC, today.use[stage.id]?.years ?? 0, strength, true);
      expect(Math.abs(productionLPerH / solved.productLPerH - 1)).toBeLessThan(0.02);
    }
  });
});

describe('the membrane of today and those after it', () => {
  const { ahead } = ALL.find(({ name }) => name === 'tressimoor-coral-nursery')!;
  const { response, membraneAgedDays } = ahead.plant;
  const aged = membraneAgedDays / 365.25;
  it('what the log says of today’s stays with it at any age; one fitted later has its age alone', () => {
    const lost = (isFirst: boolean): number[] =>
      [0.5, 1, 2].map((more) => response(14, aged + more, 1, isFirst).productionLPerH / response(14, aged, 1, isFirst).productionLPerH);
    lost(true).forEach((share, i) => expect(share).toBeCloseTo(lost(false)[i]!, 1));
    const [mine, anyOther] = [true, false].map((isFirst) => response(14, aged, 1, isFirst).productionLPerH) as [number, number];
    expect(Math.abs(mine / anyOther - 1)).toBeGreaterThan(0.02);
  });
  it('a run asks for today’s until it is changed, and for another from then on', () => {
    const asked: [number, boolean][] = [];
    const watched = {
      ...ahead.plant,
      response: (...day: Parameters<typeof response>) => {
        asked.push([day[1], day[3]]);
        return response(...day);
      },
    };
    must(simulateYears(watched, 9 * 365));
    const changed = asked.findIndex(([, isFirst]) => !isFirst);
    expect(changed).toBeGreaterThan(0);
    expect(asked[changed - 1]![0]).toBeGreaterThan(aged);
    expect(asked[changed]![0]).toBeLessThan(2 / 365);
    expect(asked.slice(changed).some(([, isFirst]) => isFirst)).toBe(false);
  });
  it('how fast membranes age leaves what is known of today alone', () => {
    const none = { use: 0, resinCapacity: 0, strength: 0, co2: 0, prices: 0, temperatureC: 0 };
    const doubts = { ...USUAL_YEAR_DOUBTS, ...none, ageing: 0.5 };
    // What the membrane leaves, with nothing behind it.
    const permeateOnly: typeof response = (...day) => ({ ...response(...day), servedPpm: null, resin: null });
    const spreadAfter = (days: number): number => {
      const { worstPpm } = must(
        runToEnd(
          yearBands({ ...ahead.plant, response: permeateOnly, resin: null }, days, PLAIN_POLICY, doubts, {
            seed: 1,
            points: 16,
            replicates: 2,
          }),
        ),
      );
      return worstPpm.p90 / worstPpm.p10 - 1;
    };
    expect(spreadAfter(1)).toBeLessThan(0.001);
    expect(spreadAfter(300)).toBeGreaterThan(0.01);
  });
});

describe('what if', () => {
  const { ahead } = ALL.find(({ name }) => name === 'tressimoor-coral-nursery')!;
  const runOf = (change: Partial<typeof AS_USUAL>, bundleDays = 0): YearRun =>
    must(simulateYears(withWhatIf(ahead, { ...AS_USUAL, ...change }), 1096, { ...PLAIN_POLICY, bundleDays }));
  const usual = runOf({});
  it('more use, a stronger tap and dearer resin cost more; colder water makes less', () => {
    expect(runOf({ use: 1.4 }).totalCost).toBeGreaterThan(usual.totalCost);
    expect(runOf({ strength: 1.3 }).loadMeq).toBeGreaterThan(usual.loadMeq);
    expect(runOf({ resinPrice: 2 }).total.resin).toBeCloseTo(2 * usual.total.resin, 6);
    expect(Math.min(...runOf({ warmerC: -3 }).couldMakeL)).toBeLessThan(Math.min(...usual.couldMakeL));
  });
  it('bundling takes visits off and nothing of the water', () => {
    const bundled = runOf({}, 30);
    expect(bundled.visits).toBeLessThan(usual.visits);
    expect(sum(bundled.deliveredL)).toBeCloseTo(sum(usual.deliveredL), 6);
  });
  it('of beds in a row one is changed at a time: the guard moves up with what it holds', () => {
    const { resin } = ahead.plant;
    expect(resin!.leadMeq).toBeCloseTo(resin!.capacityMeq / 2, 6);
    const dates = usual.events.filter(({ parts }) => parts.includes(resin!.id)).map(({ day }) => day);
    const alone = must(simulateYears({ ...ahead.plant, resin: { ...resin!, leadMeq: resin!.capacityMeq } }, 1096));
    expect(dates.length).toBeGreaterThan(1.6 * alone.events.filter(({ parts }) => parts.includes(resin!.id)).length);
  });
});

describe('bands of a year', () => {
  const { ahead } = ALL.find(({ name }) => name === 'veldrastix-van-tank')!;
  const bandsWith = (use: number): YearBands => must(runToEnd(yearBands(ahead.plant, 365, PLAIN_POLICY, { ...USUAL_YEAR_DOUBTS, use })));
  const [narrow, wide] = [bandsWith(0.05), bandsWith(0.4)];
  it('nest: more doubt holds less', () => {
    expect(wide.cost.p10).toBeLessThan(narrow.cost.p10);
    expect(wide.cost.p90).toBeGreaterThan(narrow.cost.p90);
    for (const { p10, p50, p90 } of [...narrow.dates, ...wide.dates]) expect(p10 <= p50 && p50 <= p90).toBe(true);
  });
  it('hold the run without doubt, and are the same every time', () => {
    const run = must(simulateYears({ ...ahead.plant, tank: null }, 365));
    expect(narrow.cost.p10 < run.totalCost && run.totalCost < narrow.cost.p90).toBe(true);
    expect(bandsWith(0.05)).toEqual(narrow);
  });
});

describe('the van’s year', () => {
  const outlook = (ahead: Ahead): Outlook => must(outlookOf(ahead, 365, AS_USUAL, { ...PLAIN_POLICY, bundleDays: 21 }));
  const shares = ALL.map(({ system, ahead }) => vanShare(system, outlook(ahead)));
  const months = vanYear(shares, USUAL_PACE);
  it('holds every change of every system once, with what it takes along', () => {
    expect(months).toHaveLength(12);
    const changes = months.flatMap(({ stops }) => stops).reduce((all, { changes: some }) => all + some, 0);
    expect(changes).toBe(shares.reduce((all, { visits }) => all + visits.reduce((own, { what }) => own + what.length, 0), 0));
    const hours = months.reduce((all, month) => all + month.hours, 0);
    const stops = months.reduce((all, month) => all + month.stops.length, 0);
    expect(hours).toBeCloseTo((stops * USUAL_PACE.minutesToCome + changes * USUAL_PACE.minutesAChange) / 60, 6);
    expect(months.some(({ order }) => order.some(({ unit, count }) => unit === 'L' && count > 0))).toBe(true);
  });
  it('makes one stop of two systems of one site within three days', () => {
    const [share] = shares;
    const twin = { ...share!, id: 'twin', name: 'Twin' };
    expect(vanYear([share!, twin], USUAL_PACE).reduce((all, { stops }) => all + stops.length, 0)).toBe(
      vanYear([share!], USUAL_PACE).reduce((all, { stops }) => all + stops.length, 0),
    );
    const elsewhere = { ...twin, site: 'Elsewhere' };
    expect(vanYear([share!, elsewhere], USUAL_PACE).reduce((all, { stops }) => all + stops.length, 0)).toBe(
      2 * vanYear([share!], USUAL_PACE).reduce((all, { stops }) => all + stops.length, 0),
    );
  });
});

describe('what cannot be run', () => {
  it('is refused by name: no need, no days', () => {
    const { system, today, feed, ahead } = ALL[0]!;
    const idle = { ...system, goal: { ...system.goal, demand: { ...system.goal.demand, dayL: [0, 0, 0, 0, 0, 0, 0], batches: [] } } };
    const refused = aheadOf(idle, today, feed, Date.parse(DEMO_NOW));
    expect(refused.ok ? '' : refused.error.field).toBe('demand');
    const none = outlookOf(ahead, 0, AS_USUAL, PLAIN_POLICY);
    expect(none.ok ? '' : none.error.field).toBe('days');
  });
});
