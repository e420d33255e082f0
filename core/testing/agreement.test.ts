import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { footLine, loopReport, moreWater, reportTrain, trainTitle, type TrainReport } from '../advice';
import { bedCapacityEq } from '../exchange';
import { NO_KIT, TEMPLATE_IDS, withSample, type System, type TemplateId } from '../file';
import { evenDemand, GOAL_IDS, onlyAssumed } from '../goal';
import { trackResin } from '../log';
import { words } from '../quantity';
import { newStage, placed, stageBed, STAGE_KINDS, type Stage, type StageKind } from '../stage';
import { systemFromTemplate } from '../template';
import { polishedStation, solveTrain, tapWater } from '../train';
import type { CompletedWater } from '../water';

/**
 * No verdict contradicts another, on random waters and trains: what two panels show of one thing is one thing.
 * `AGREEMENT_RUNS` says how many; the reliability command runs 5,000.
 */
const RUNS = Number(process.env['AGREEMENT_RUNS'] ?? 250);

interface Case {
  readonly template: TemplateId;
  readonly reading: number;
  readonly temperatureC: number;
  readonly linePressureBar: number;
  readonly kit: { readonly hardnessMgL: number; readonly alkalinityMgL: number } | null;
  readonly goal: (typeof GOAL_IDS)[number];
  readonly litresPerDay: number;
  readonly blend: number;
  readonly extra: StageKind | null;
  readonly looked: boolean;
}
const cases: fc.Arbitrary<Case> = fc.record({
  template: fc.constantFrom(...TEMPLATE_IDS),
  reading: fc.double({ min: 20, max: 900, noNaN: true }),
  temperatureC: fc.double({ min: 3, max: 30, noNaN: true }),
  linePressureBar: fc.double({ min: 2, max: 7, noNaN: true }),
  kit: fc.option(
    fc.record({ hardnessMgL: fc.double({ min: 10, max: 400, noNaN: true }), alkalinityMgL: fc.double({ min: 10, max: 300, noNaN: true }) }),
  ),
  goal: fc.constantFrom(...GOAL_IDS),
  litresPerDay: fc.double({ min: 0.5, max: 2000, noNaN: true }),
  blend: fc.constantFrom(0, 0, 0, 0.2),
  extra: fc.option(fc.constantFrom(...STAGE_KINDS.filter((kind) => kind !== 'membrane'))),
  looked: fc.boolean(),
});

function systemOf(of: Case): System {
  const base = systemFromTemplate({ id: 's', name: 'n', site: 's', template: of.template, at: '2026-11-23T10:00:00Z' });
  const sea = of.template === 'watermaker';
  const extra: Stage | null = of.extra && { ...newStage(of.extra, 'extra'), ...({} as object) };
  return {
    ...base,
    source: {
      ...withSample(base.source, {
        ...(sea ? {} : { reading: of.reading }),
        temperatureC: of.temperatureC,
        ...(of.kit && !sea ? { way: 'kit', reading: null, kit: { ...NO_KIT, ...of.kit } } : {}),
      }),
      assumed: of.looked ? [] : base.source.assumed,
      linePressureBar: sea ? base.source.linePressureBar : of.linePressureBar,
    },
    goal: {
      ...base.goal,
      id: of.goal,
      school: null,
      prepare: of.blend > 0 ? { how: 'blend', tapShare: of.blend } : { how: 'none' },
      demand: evenDemand(of.litresPerDay, 'day'),
    },
    train: { ...base.train, stages: extra ? placed(base.train.stages, extra) : base.train.stages },
  };
}

const plain = (text: string): string => text.replaceAll('\u202f', ' ');

/** Every pair of places that speak of one thing; what is wrong, or nothing. */
function contradictions(system: System, tap: CompletedWater, report: TrainReport): string[] {
  const wrong: string[] = [];
  const say = words(system.units);
  const need = (holds: boolean, what: string): void => void (holds || wrong.push(what));
  const findings = [...report.findings, ...report.branches.flatMap((branch) => branch.findings)];
  const texts = findings.map(({ title, why }) => plain(`${title} ${why}`));
  const foot = new Map(footLine(system, report).map(([figure, says]) => [says, plain(figure)]));
  const { solved, resin, cost, checks } = report;

  // Words at all.
  need(!texts.some((text) => /NaN|undefined|Infinity|\bnull\b/.test(text)), 'a sentence without its figure');
  need(new Set(report.findings.map(({ id }) => id)).size === report.findings.length, 'two findings of one id');

  // Goal and what it is judged by.
  const goal = report.findings.find(({ id }) => id === 'goal');
  const missed = checks.filter(({ met }) => !met);
  if (goal) {
    need((goal.severity === 'good') === (missed.length === 0), `goal ${goal.severity} with ${missed.length} missed`);
    need(
      goal.severity !== 'bad' ||
        missed.some((check) => check.side === 'high' && !onlyAssumed(check)) ||
        missed.some((check) => check.side === 'high'),
      'goal bad without a reason',
    );
    need(!/assumed/.test(goal.title) || missed.some(({ assumed }) => assumed !== null), 'assumed without an assumption');
  }
  for (const { limit, value, met, assumed } of checks) {
    need(met || limit.high === null || value > limit.high * 0.98 || limit.low !== null, `${limit.quantity} missed below its limit`);
    need(assumed === null || assumed.plusMinus >= 0, `${limit.quantity} doubt below 0`);
  }
  // Loop: its worst hour decides the conductivity.
  const loop = loopReport(system, solved);
  const blended = report.prepared.ok && report.prepared.value.recipe.how !== 'none';
  const ec = checks.find(({ limit }) => limit.quantity === 'ec25UScm');
  if (loop?.ok && ec && !blended)
    need(
      Math.abs(ec.value * Math.min(...loop.value.week.map(({ outletMOhmCm }) => outletMOhmCm)) - 1) < 1e-9,
      'the goal is judged at another hour than the loop tells',
    );
  else if (ec && !blended) need(ec.value === polishedStation(solved).state.ec25UScm, 'the goal is judged elsewhere than at the outlet');
  if (ec && !blended && goal?.severity === 'good')
    need(plain(goal.title).includes(plain(say.water(ec.value))), `goal "${goal.title}" against ${ec.value} judged`);
  // Title, picture and ledger.
  if (!solved.unit?.noProduction)
    need(
      plain(trainTitle(system, report)).includes(` to ${plain(say.water(polishedStation(solved).state.ec25UScm))} in `),
      'title against ledger',
    );
  // One life of one resin: foot line, finding, doubt and what the train itself lets through.
  if (resin?.throughput.until.kind === 'litres') {
    const { litres } = resin.throughput.until;
    need(resin.band.p10 <= 1 && resin.band.p90 >= 1, 'the life told lies outside its own band');
    need(
      (foot.get('new resin') ?? foot.get('new resin, slower')) === plain(say.of(litres, 'volumeL')),
      `foot ${foot.get('new resin')} against ${litres}`,
    );
    const told = findings.find(({ id }) => id === 'resin');
    if (told && resin.mostLPerH === null && !resin.inLoop)
      need(plain(told.title).includes(plain(say.about(litres, 'volumeL'))), `finding "${told.title}" against ${litres}`);
    if (!resin.inLoop && resin.mostLPerH === null && resin.beds === 1) {
      const stage = system.train.stages.find((one) => one.kind === 'resin')!;
      const held = bedCapacityEq(stageBed(stage));
      const { load, throughput } = resin;
      const at = (share: number): number | null => {
        const use = {
          [stage.id]: {
            cationEq: (share * litres * load.cationMeqL) / 1000,
            anionEq: (share * litres * load.anionMeqL) / 1000,
            passedL: share * litres,
          },
        };
        const then = solveTrain(system.train, system.source, tap.water, use);
        return then.ok ? (then.value.stations.find(({ after }) => after === stage.id)?.state.ec25UScm ?? null) : null;
      };
      const [fresh, half, late] = [at(0), at(0.5), at(2.2)];
      if (held.anionEq > 0 && held.cationEq > 0 && fresh && half && late) {
        need(half < 3 * fresh + 0.2, `half spent by its life it leaves ${half} instead of ${fresh}`);
        need(late >= 0.98 * fresh, `spent twice over (${throughput.limiting}) it still leaves ${late}`);
      }
    }
  }
  // The log of a system without readings starts with a full resin.
  const tracking = trackResin(system, [], solved, '2026-11-24T10:00:00Z');
  if (tracking) need(tracking.remaining.p50 > 0.99, 'a resin nobody used is not full');
  // One price, its parts named.
  if (cost) {
    const { total, ...parts } = cost;
    need(
      Math.abs(Object.values(parts).reduce((sum, part) => sum + part, 0) - total) < 1e-9 * Math.max(1, total),
      `the parts of the price are not its sum: ${JSON.stringify(cost)}`,
    );
    need(
      Object.values(parts).every((part) => part >= 0),
      'a part of the price below 0',
    );
  }
  // What is needed, made and run.
  if (report.runHoursPerDay !== null)
    need(
      Math.abs(report.runHoursPerDay * solved.productLPerH - report.demandLPerDay) < 1e-6 * Math.max(1, report.demandLPerDay),
      'hours against need',
    );
  need(
    !findings.some(({ id, severity }) => id === 'demand' && (severity === 'good') !== solved.productLPerH * 24 >= report.demandLPerDay),
    'demand against output',
  );
  // Hazards stand above what is good.
  const firstGood = report.findings.findIndex(({ severity }) => severity === 'good');
  const lastHazard = report.findings.findLastIndex(({ hazard }) => hazard === true);
  need(firstGood < 0 || lastHazard < firstGood, 'a hazard under a green finding');
  return wrong;
}

describe('no verdict contradicts another', () => {
  it(`on ${RUNS} random waters and trains`, { timeout: 1_200_000 }, () => {
    let solved = 0;
    fc.assert(
      fc.property(cases, (of) => {
        const system = systemOf(of);
        const tap = tapWater(system.source, system.instruments);
        if (!tap.ok) return;
        const report = reportTrain(system, tap.value.water, {}, undefined, tap.value);
        if (!report.ok) {
          expect(report.error.message).not.toMatch(/NaN|undefined/);
          return;
        }
        solved += 1;
        expect(contradictions(system, tap.value, report.value)).toEqual([]);
      }),
      { numRuns: RUNS },
    );
    // The rest was refused with a reason; most must have been tried.
    expect(solved).toBeGreaterThan(0.6 * RUNS);
  });
  it('More water starts from the train as it stands, at the same price', { timeout: 600_000 }, () => {
    fc.assert(
      fc.property(cases, (of) => {
        const system = systemOf(of);
        const tap = tapWater(system.source, system.instruments);
        const report = tap.ok ? reportTrain(system, tap.value.water) : tap;
        if (!tap.ok || !report.ok) return;
        const asItIs = moreWater(system, tap.value.water).find(({ id }) => id === 'asItIs');
        if (!asItIs) return;
        expect(asItIs.productLPerDay).toBeCloseTo(24 * report.value.solved.productLPerH, 6);
        expect(asItIs.costPerM3 ?? -1).toBeCloseTo(report.value.cost?.total ?? -1, 6);
      }),
      { numRuns: Math.ceil(RUNS / 10) },
    );
  });
});
