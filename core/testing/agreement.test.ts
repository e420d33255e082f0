import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { footLine, loopReport, moreWater, reportTrain, trainTitle, type TrainReport } from '../advice';
import { bedCapacityEq } from '../exchange';
import { NO_KIT, TEMPLATE_IDS, withSample, type Reading, type System, type TemplateId } from '../file';
import { benchOf, candidate, candidateCount, rowBy, lookAt, judgeOption, TODAY } from '../choice';
import { evenDemand, GOAL_IDS, judge } from '../goal';
import { asShown } from '../goal/check';
import { perM3 } from '../ledger';
import { dueOf, standing, trackResin } from '../log';
import { words } from '../quantity';
import { DEMO_FILES, DEMO_NOW, readDemo } from './demo';
import { aheadOf } from '../year';
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
  const { solved, resin, ledger, checks } = report;

  // Words at all.
  need(!texts.some((text) => /NaN|undefined|Infinity|\bnull\b/.test(text)), 'a sentence without its figure');
  need(new Set(report.findings.map(({ id }) => id)).size === report.findings.length, 'two findings of one id');

  // Goal and what it is judged by.
  const blended = report.prepared.ok && report.prepared.value.recipe.how !== 'none';
  const goal = report.findings.find(({ id }) => id === 'goal');
  const missed = checks.filter(({ verdict }) => verdict === 'missed');
  const open = checks.filter(({ verdict }) => verdict === 'unknown');
  if (goal) {
    // Where no limit is set nothing is met: what can be told is told as a note.
    need(
      (goal.severity === 'good') === (report.verdict === 'met' && checks.length > 0),
      `goal ${goal.severity} on a verdict of ${report.verdict}`,
    );
    need(goal.severity !== 'bad' || missed.some(({ side }) => side === 'high'), 'goal bad without a reason');
    need(!/assumed/.test(goal.title) || [...missed, ...open].some(({ assumed }) => assumed !== null), 'assumed without an assumption');
  }
  need((report.verdict === 'missed') === missed.length > 0, 'verdict against its limits');
  need((report.verdict === 'met') === (missed.length + open.length === 0), 'met against its limits');
  for (const { limit, verdict, side, value, assumed } of checks) {
    // As it is shown: a limit is met when its figure reads so.
    const high = limit.high === null ? Infinity : asShown(limit.high, limit.quantity);
    need((side === 'high') === asShown(value, limit.quantity) > high, `${limit.quantity} ${value} has side ${side}`);
    need(verdict !== 'missed' || side !== null, `${limit.quantity} missed within its limits`);
    need(verdict !== 'unknown' || assumed !== null, `${limit.quantity} unknown though measured`);
    need(assumed === null || assumed.plusMinus >= 0, `${limit.quantity} doubt below 0`);
  }
  // One judge: a blank system judged again by hand comes to the same.
  const end = solved.stations.at(-1)!;
  if (system.train.loop === null && report.judgedUScm === end.state.ec25UScm) {
    const again = judge(system.goal, system.units.ppmFactor, { product: end.water, state: end.state, tapWater: tap.water, tap });
    need(again.verdict === report.verdict, `judged ${report.verdict} in the train, ${again.verdict} by its water`);
  }
  // Strength allowed: the goal's own limit, where it has one.
  const allowed = checks.find(({ limit }) => limit.quantity === 'ec25UScm');
  if (allowed && !blended && report.strength && report.strength.highUScm !== null && allowed.limit.high !== null)
    need(report.strength.highUScm <= allowed.limit.high * (1 + 1e-9), `allowed ${report.strength.highUScm} above ${allowed.limit.high}`);
  // Loop: its worst hour decides the conductivity.
  const loop = loopReport(system, solved);
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
    need(plain(trainTitle(system, report)).includes(` to ${plain(say.water(report.judgedUScm))} in `), 'title against ledger');
  // One life of one resin: foot line, finding, doubt and what the train itself lets through.
  if (resin?.throughput.until.kind === 'litres') {
    const { litres } = resin.throughput.until;
    need(resin.band.p10 <= 1 && resin.band.p90 >= 1, 'the life told lies outside its own band');
    need(
      (foot.get('new resin') ?? foot.get('new resin, slower')) ===
        (litres > 3650 * report.demandLPerDay ? 'over 10 years' : plain(say.of(litres, 'volumeL'))),
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
        // A goal that weak acids alone still meet lets a bed be used until strong ions come: half of that life may show them.
        const little = Math.max(3 * fresh + 0.2, resin.usable > 1 ? (resin.goalUScm ?? 0) : 0);
        need(half < little, `half spent by its life it leaves ${half} instead of ${fresh}`);
        // A bed too shallow for its flow leaks hydroxide; as its anions give way that turns to chloride, which conducts less.
        const least = fresh > 1 ? 0.5 : 0.98;
        need(late >= least * fresh, `spent twice over (${throughput.limiting}) it still leaves ${late}`);
      }
    }
  }
  // The log of a system without readings starts with a full resin.
  const tracking = trackResin(system, [], solved, '2026-11-24T10:00:00Z');
  if (tracking) need(tracking.remaining.p50 > 0.99, 'a resin nobody used is not full');
  // One ledger: its lines are its sum, its water what the year draws, its power what the pumps take.
  const { visits = 0, ...running } = ledger.lines;
  const sum = Object.values(running).reduce((total, amount) => total + amount, 0);
  need(Math.abs(sum - ledger.running) < 1e-9 * Math.max(1, sum), `lines of ${sum} against ${ledger.running}`);
  need(visits === ledger.visits, 'visits booked otherwise than told');
  need(
    Object.values(ledger.lines).every((amount) => amount > 0),
    'a line of nothing',
  );
  const bought = ledger.parts.reduce((total, { perYear }) => total + perYear, 0);
  const { water = 0, sewer = 0, energy = 0, chemicals = 0 } = ledger.lines;
  need(
    Math.abs(bought + water + sewer + energy + chemicals - ledger.running) < 1e-9 * Math.max(1, sum),
    'parts and water are not what it costs',
  );
  need(Math.abs(ledger.kWh - ((report.energyKWhPerM3 ?? 0) * ledger.productL) / 1000) < 1e-6 * Math.max(1, ledger.kWh), 'kWh against kWh');
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
        expect(asItIs.costPerM3 ?? 0).toBeCloseTo(perM3(report.value.ledger.running, report.value.ledger), 6);
      }),
      { numRuns: Math.ceil(RUNS / 10) },
    );
  });
});

/** What Costs, Year ahead, the due list and Options say of one system on one day. */
function panels(system: System, readings: readonly Reading[], now: string): string[] {
  const wrong: string[] = [];
  const need = (holds: boolean, what: string): void => void (holds || wrong.push(what));
  const near = (a: number, b: number, within: number): boolean => Math.abs(a - b) <= within * Math.max(Math.abs(a), Math.abs(b), 1e-6);
  const tap = tapWater(system.source, system.instruments);
  const today = tap.ok ? standing(system, readings, tap.value.water, now, tap.value) : tap;
  if (!tap.ok || !today.ok) return [];
  const { ledger, year } = today.value.report;
  const ahead = aheadOf(system, today.value, tap.value.water, Date.parse(now));
  if (ahead.ok) {
    const { meanYear, plant } = ahead.value;
    need(meanYear.running === ledger.running && meanYear.visits === ledger.visits, 'Year ahead has another mean year than Costs');
    // First dates: the due list's own.
    for (const { stageId, work, at } of dueOf(system, today.value, now)) {
      const part = plant.parts.find(({ id }) => id === `${stageId} ${work}`);
      const days = (Date.parse(at) - ahead.value.startMs) / 86_400_000;
      if (part?.firstDue !== undefined) need(Math.abs(part.firstDue - Math.max(0, days)) < 1e-6, `${stageId} due on two dates`);
    }
  }
  const own = rowBy(TODAY, 'today', system, today.value.use);
  if (own) {
    const { lines, annualCost, running, kWh, feedL, wasteL } = own.figures;
    need(
      near(running, annualCost - (lines.capital ?? 0) - (lines.visits ?? 0), 1e-9),
      'what it takes to run is not what its lines come to',
    );
    need(near(running, ledger.running, 1e-6), `Options has today run for ${running}, Costs for ${ledger.running}`);
    for (const line of new Set([...Object.keys(lines), ...Object.keys(ledger.lines)]))
      if (line !== 'capital')
        need(
          near(lines[line as keyof typeof lines] ?? 0, ledger.lines[line as keyof typeof lines] ?? 0, 1e-6),
          `${line} ${lines[line as keyof typeof lines] ?? 0} in Options, ${ledger.lines[line as keyof typeof lines] ?? 0} in Costs`,
        );
    need(near(kWh, ledger.kWh, 1e-6), `${kWh} kWh in Options, ${ledger.kWh} in Costs`);
    need(near(wasteL, ledger.wasteL, 1e-6) && near(feedL, ledger.feedL, 1e-6), 'feed or waste of today in Options against Costs');
    need(near(feedL - wasteL, 365.25 * today.value.report.usedLPerDay, 1e-6), 'what is neither wasted nor used of today’s feed');
  }
  need(year.feedPerL >= 1 - 1e-9, 'more made than drawn');
  return wrong;
}

describe('panels of one system agree', () => {
  it.each(DEMO_FILES)('%s: Costs, Year ahead, due list and Options', (name) => {
    const { system, readings } = readDemo(name);
    expect(panels(system, readings, DEMO_NOW)).toEqual([]);
  });
  it('on random systems of every job', { timeout: 1_200_000 }, () => {
    fc.assert(
      fc.property(cases, (of) => {
        expect(panels(systemOf(of), [], '2026-11-24T10:00:00Z')).toEqual([]);
      }),
      { numRuns: Math.ceil(RUNS / 10) },
    );
  });
  it('an option is built and shown as it was judged, to a hundredth', { timeout: 1_200_000 }, () => {
    fc.assert(
      fc.property(cases, fc.double({ min: 0, max: 0.999999, noNaN: true }), (of, place) => {
        const system = systemOf(of);
        const bench = benchOf(system);
        if (!bench.ok) return;
        const { spaces } = bench.value;
        let at = Math.floor(place * candidateCount(spaces));
        const space = spaces.find(({ axes }) => {
          const size = axes.reduce((product, { values }) => product * values.length, 1);
          if (at < size) return true;
          at -= size;
          return false;
        })!;
        const places = space.axes.toReversed().map(({ values }) => {
          const k = at % values.length;
          at = Math.floor(at / values.length);
          return k;
        });
        const id = `${space.id}:${places.toReversed().join('.')}`;
        const judged = judgeOption(lookAt(candidate(spaces, id)!, bench.value), bench.value);
        if (!judged.admissible) return;
        const shown = rowBy(id, 'asked', system)!;
        for (const key of ['annualCost', 'wasteL', 'winterMargin'] as const) {
          const [quick, full] = [judged.figures[key], shown.figures[key]];
          expect(Math.abs(quick - full), `${id} ${key} ${quick} judged, ${full} shown`).toBeLessThanOrEqual(0.01 * Math.abs(full) + 1e-9);
        }
        expect(shown.rejection, id).toBeNull();
      }),
      { numRuns: RUNS },
    );
  });
});
