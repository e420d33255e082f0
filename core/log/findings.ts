import { smallestStepUScm } from '../water';
import { isUsualRatio, USUAL_RATIO } from '../membrane';
import { allStages, FIRST_YEAR, isLikelyDate, LAST_YEAR, stoodBefore, undatedStages, type Reading, type System } from '../file';
import { judgeRise, type RisePoint } from '../exchange';
import { GOAL_ROWS, outsideStrength, strengthTexts } from '../goal';
import { yearStandings } from '../life';
import { strengthOf } from '../advice';
import { atStart, DAY_MS, inSentence, listed, percent, THIN, words } from '../quantity';
import { cartridgeLife, type Finding } from '../stage';
import { atPlace, polishedStation, type SolvedTrain } from '../train';
import { baselineOf, inOrder, probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
import { dateAfter } from './dates';
import { dayWords } from './days';
import { membraneFindings } from './membraneFindings';
import type { MembraneTrend } from './membraneTrend';
import { tapFinding } from './tapTrend';
import type { ResinTracking } from './resin';
import type { Standing } from './standing';
import { dueOf } from './due';

/** Two instruments disagree only beyond this (water chapter, section 5): share of the value, or µS/cm near zero. */
const DISAGREE_SHARE = 0.15;
const DISAGREE_USCM = 2;
const GAP_DAYS = 60;

/**
 * What the log says: the product against the goal, salt held back against the first reading, the probes
 * against the model, and the resin.
 */
export function logFindings(
  system: System,
  readings: readonly Reading[],
  solved: SolvedTrain,
  tracking: ResinTracking | null,
  now: string,
  membrane: MembraneTrend | null = null,
  today: Standing | null = null,
): Finding[] {
  const ordered = inOrder(readings);
  const last = ordered[ordered.length - 1];
  if (!last) {
    return [
      {
        id: 'empty',
        severity: 'note',
        title: '0 readings so far',
        why: 'Type the first one above: the probes in their order, then pressure and temperature.',
      },
      ...undatedFinding(system),
    ];
  }
  return [
    oddDateFinding(readings),
    futureFinding(ordered, now),
    productFinding(system, last, solved),
    tapFinding(system, ordered, membrane?.salt ? Math.abs(membrane.salt.now.value) < 0.12 : false),
    ...resinFindings(tracking, now),
    riseFinding(system, ordered, tracking),
    ...(today ? cartridgeFindings(system, today, now) : []),
    ...(membrane ? membraneFindings(system, ordered, membrane, now) : []),
    membrane?.salt && membrane.salt.count > 1 ? null : removalFinding(system, ordered),
    modelFinding(system, last, solved),
    ratioFinding(system, last),
    ...undatedFinding(system),
  ].filter((finding): finding is Finding => finding !== null);
}

/** Readings of years in which none can have been taken: a clock that was wrong, or a slip. They count for nothing. */
function oddDateFinding(readings: readonly Reading[]): Finding | null {
  const odd = readings.filter(({ at }) => !isLikelyDate(at));
  const [first] = odd;
  if (!first) return null;
  return {
    id: 'oddDate',
    severity: 'mind',
    title: `${odd.length === 1 ? '1 reading is' : `${odd.length} readings are`} dated outside ${FIRST_YEAR} to ${LAST_YEAR}`,
    why: `One says ${first.at.slice(0, 10)}. Nothing is counted from it; take it away and log it again if its figures are known.`,
  };
}

/** Parts that nobody dated on a system that runs: what is never due because nobody asked is not "nothing due". */
function undatedFinding(system: System): Finding[] {
  const undated = stoodBefore(system) || system.build.commissioned ? undatedStages(system) : [];
  if (undated.length === 0) return [];
  const one = undated.length === 1;
  return [
    {
      id: 'undated',
      severity: 'note',
      title: `${one ? '1 part has' : `${undated.length} parts have`} no day`,
      why: `${atStart(listed(undated.map(({ name }) => inSentence(name))))}: since when ${one ? 'it is' : 'they are'} in is not known, so nothing of ${one ? 'it' : 'them'} falls due. About is enough.`,
    },
  ];
}

/** Minutes a reading may lie ahead of a clock before one of the two is doubted. */
const AHEAD_MINUTES = 15;

/** Readings of a time that has not come: either they or this device's clock are wrong, and everything counts from it. */
export function futureFinding(readings: readonly Reading[], now: string): Finding | null {
  const edge = Date.parse(now) + AHEAD_MINUTES * 60_000;
  const ahead = readings.filter((reading) => Date.parse(reading.at) > edge);
  const newest = ahead.at(-1);
  if (!newest) return null;
  const [many, lie] = ahead.length === 1 ? ['1 reading lies', 'It is'] : [`${ahead.length} readings lie`, 'The newest is'];
  return {
    id: 'future',
    severity: 'mind',
    title: `${many} ahead of this device’s clock`,
    why: `${lie} of ${dayWords(newest.at)} ${newest.at.slice(0, 4)}; the clock says ${dayWords(now)} ${now.slice(0, 4)}. Set the clock right, or take the reading away: what is left and what is due is counted from today.`,
  };
}

function productFinding(system: System, last: Reading, solved: SolvedTrain): Finding | null {
  const roles = probeRoles(system);
  const probe = roles.afterResin ?? roles.afterMembrane;
  const ec25 = probe && probeEc25(last, probe.id, system.instruments);
  const limit = strengthOf(system, solved);
  if (!probe || ec25 === null || ec25 === undefined || !limit) return null;
  const say = words(system.units);
  const outside = outsideStrength(limit, ec25);
  const bounds = [
    ...(limit.lowUScm === null ? [] : [`at least ${say.water(limit.lowUScm)}`]),
    ...(limit.highUScm === null ? [] : [`at most ${strengthTexts(ec25, limit.highUScm, system.units).bound}`]),
  ];
  if (outside === null)
    return {
      id: 'product',
      severity: 'good',
      title: `Product reads ${say.water(ec25)}`,
      why: `The goal asks for ${listed(bounds)} ${inSentence(probe.name)}.`,
    };
  if (outside === 'low')
    return {
      id: 'product',
      severity: 'mind',
      title: `Product reads ${say.water(ec25)}, the goal is at least ${say.water(limit.lowUScm!)}`,
      why: 'Emptier than it may be: more of the tap blended back, or minerals put in, bring it up.',
    };
  const overboard = mostDrinkable(system, solved);
  if (overboard !== null && ec25 > overboard)
    return {
      id: 'product',
      severity: 'bad',
      hazard: true,
      title: `Product reads ${say.water(ec25)}: overboard, not to the tank`,
      why: `Above ${say.water(overboard)} it is not to be drunk. Lead it overboard until the meter is below; a leaking seal, too little pressure or a damaged membrane lets salt through.`,
    };
  const figures = strengthTexts(ec25, limit.highUScm!, system.units);
  return {
    id: 'product',
    severity: 'bad',
    title: `Product reads ${figures.value}, the goal is at most ${figures.bound}`,
    why: roles.afterResin
      ? 'Flush two minutes and read again. If it stays, the resin is spent or lets water slip by: repack or change it.'
      : 'Flush two minutes and read again before judging the membrane.',
  };
}

/** Strength above which water made from the sea is not drunk at all, whatever this crew asks for; null of other water. */
function mostDrinkable(system: System, solved: SolvedTrain): number | null {
  if (system.goal.id !== 'watermaker') return null;
  const last = GOAL_ROWS.watermaker.schools.at(-1)!;
  return strengthOf({ ...system, goal: { ...system.goal, school: last.id, ownLimits: [] } }, solved)?.highUScm ?? null;
}

function resinFindings(tracking: ResinTracking | null, now: string): (Finding | null)[] {
  if (!tracking) return [];
  const { remaining, daysLeft, name } = tracking;
  const spread = percent((remaining.p90 - remaining.p10) / 2).replace(`${THIN}%`, '');
  const left = `${percent(remaining.p50)} ± ${spread} left in ${inSentence(name)}`;
  const basis =
    tracking.volumeFrom === 'meter'
      ? ''
      : tracking.volumeFrom === 'design'
        ? ' Litres are taken from the planned use; log the product meter to know.'
        : ' Part of the litres is taken from the planned use.';
  const rate = tracking.rateFrom === 'design' ? ' The log is too short for a rate of its own.' : '';
  const gap: Finding | null =
    tracking.longestGapDays > GAP_DAYS
      ? {
          id: 'gap',
          severity: 'mind',
          title: `${Math.round(tracking.longestGapDays)} days between two readings`,
          why: 'What the resin took up meanwhile is interpolated from its two ends.',
        }
      : null;
  if (!daysLeft) return [{ id: 'resin', severity: 'note', title: left, why: `No date: nothing has been used of late.${basis}` }, gap];
  const from = dayWords(dateAfter(now, daysLeft.p10));
  const to = dayWords(dateAfter(now, daysLeft.p90));
  const severity = daysLeft.p10 <= 7 ? 'bad' : daysLeft.p10 <= 30 ? 'mind' : 'good';
  return [
    {
      id: 'resin',
      severity,
      title: severity === 'good' ? left : `Have resin ready by ${from}`,
      why: `${severity === 'good' ? '' : `${left}. `}Spent between ${from} and ${to}; the ${tracking.limiting} side goes first${tracking.firstIon ? `, most likely with ${tracking.firstIon}` : ''}.${basis}${rate}`,
    },
    gap,
  ];
}

/** What a rising reading behind a single resin means: its end, a lane, or the meter. */
function riseFinding(system: System, ordered: readonly Reading[], tracking: ResinTracking | null): Finding | null {
  const { beforeResin, afterResin } = probeRoles(system);
  const resins = system.train.stages.filter((stage) => stage.kind === 'resin');
  if (!tracking || !beforeResin || !afterResin || resins.length !== 1) return null;
  const instrument = system.instruments.find((candidate) => candidate.id === afterResin.instrumentId);
  if (!instrument) return null;
  const stepUScm = smallestStepUScm(instrument);
  const readingAt = new Map(ordered.map((reading) => [reading.at, reading]));
  const points = tracking.points.flatMap((point): RisePoint[] => {
    const reading = readingAt.get(point.at);
    const inUScm = reading ? probeEc25(reading, beforeResin.id, system.instruments) : null;
    const outUScm = reading ? probeEc25(reading, afterResin.id, system.instruments) : null;
    const taken = tracking.limiting === 'anion' ? point.anionEq : point.cationEq;
    return inUScm === null || outUScm === null ? [] : [{ used: taken / tracking.capacityEq, inUScm, outUScm }];
  });
  const { verdict, slope, from } = judgeRise(points, stepUScm);
  const at = from === null ? '' : `${percent(from)} of its capacity`;
  switch (verdict) {
    case 'exhaustion':
      return {
        id: 'rise',
        severity: 'bad',
        title: `${tracking.name} is at its end: a steep rise from ${at}`,
        why: `Slope ${slope!.toFixed(0)}, as a front has it. Change it now.`,
      };
    case 'early':
      return {
        id: 'rise',
        severity: 'mind',
        title: `${tracking.name} ends early: a steep rise from ${at}`,
        why: `Slope ${slope!.toFixed(0)}. More is taken up than was counted, mostly CO₂; or the resin holds less.`,
      };
    case 'channeling':
      return {
        id: 'rise',
        severity: 'mind',
        title: `Water slips past the resin: flat and early, from ${at}`,
        why: `Slope ${slope!.toFixed(1)}; a spent bed rises ten times as steeply. Repack it, tap it down, stand it upright.`,
      };
    case 'acidOrMeter':
      return {
        id: 'rise',
        severity: 'bad',
        title: `More comes out of the resin than goes in, at ${at}`,
        why: 'Measure the pH: below 5 the anion side is spent, change it now. Otherwise check the meter.',
      };
    case 'meter':
      return {
        id: 'rise',
        severity: 'mind',
        title: 'One reading behind the resin leapt 5 times and came back',
        why: 'That was the meter, not the resin: clean its tip.',
      };
    case 'undetermined':
      return null;
  }
}

/** Cartridges with a bypass: the litres through them against what their meter is set to, and the day they are due. */
function cartridgeFindings(system: System, today: Standing, now: string): Finding[] {
  if (!allStages(system.train).some(({ kind }) => kind === 'decarboniser')) return [];
  const say = words(system.units);
  const dues = dueOf(system, today, now);
  return yearStandings(system, today.report).flatMap(({ stage, before, litresPerDay }): Finding[] => {
    const due = dues.find(({ stageId, work }) => stageId === stage.id && work === 'changed');
    if (stage.kind !== 'decarboniser' || !due) return [];
    const presetL = cartridgeLife({ stage, before, litresPerDay })?.presetL ?? null;
    if (presetL === null) return [];
    const passed = say.of(today.use[stage.id]?.passedL ?? 0, 'volumeL');
    const late = Date.parse(due.at) <= Date.parse(now);
    const soon = Date.parse(due.at) - Date.parse(now) <= SOON_DAYS * DAY_MS;
    return [
      {
        id: `cartridge-${stage.id}`,
        severity: late ? 'bad' : soon ? 'mind' : 'good',
        title: `${stage.name} ${late ? 'is due:' : 'has had'} ${passed} of ${say.of(presetL, 'volumeL')}`,
        why: late ? 'Change it now, flush the new one, and set its meter again.' : `Change it about ${dayWords(due.at)}, ${due.because}.`,
      },
    ];
  });
}
/** Days ahead of which a change is worth an eye. */
const SOON_DAYS = 30;

function removalFinding(system: System, ordered: readonly Reading[]): Finding | null {
  const roles = probeRoles(system);
  const series = ordered
    .map((reading) => saltRemoved(reading, roles, system.instruments))
    .filter((value): value is number => value !== null);
  const baseline = baselineOf(system, ordered);
  const handedOver = baseline !== null && baseline.id === system.build.commissioned?.readingId;
  const first = (baseline && saltRemoved(baseline, roles, system.instruments)) ?? series[0];
  const last = series[series.length - 1];
  if (first === undefined || last === undefined) return null;
  const passage = (1 - last) / Math.max(1e-6, 1 - first);
  const shown = `${(100 * last).toFixed(1)}${THIN}%`;
  if (series.length > 1 && passage > 1.5) {
    return {
      id: 'removal',
      severity: 'mind',
      title: `Salt removed ${shown}, was ${(100 * first).toFixed(1)}${THIN}%`,
      why: `${passage.toFixed(1)} times as much passes as at the ${handedOver ? 'hand-over' : 'start'}. Compare at the same pressure and temperature before blaming the membrane.`,
    };
  }
  return {
    id: 'removal',
    severity: last < 0.9 ? 'mind' : 'good',
    title: `Membrane holds back ${shown} of the salt`,
    why:
      last < 0.9 ? 'About 98 % is good; low pressure alone can cost several points.' : 'From the tap probe and the one after the membrane.',
  };
}

/** Probes against the model of the train as it stands; the largest gap is named. */
function modelFinding(system: System, last: Reading, solved: SolvedTrain): Finding | null {
  const gaps = system.train.probes.flatMap((probe) => {
    const read = probeEc25(last, probe.id, system.instruments);
    const station = atPlace(solved, probe);
    const instrument = system.instruments.find((candidate) => candidate.id === probe.instrumentId);
    if (read === null || !station || !instrument) return [];
    // Below what a whole-ppm meter resolves, any reading agrees.
    const blind = smallestStepUScm(instrument);
    const model = station.state.ec25UScm;
    const apart = Math.abs(read - model);
    const tolerance = Math.max(DISAGREE_SHARE * model, DISAGREE_USCM, blind);
    return [{ probe, read, model, excess: apart / tolerance }];
  });
  if (gaps.length === 0) return null;
  const say = words(system.units);
  const worst = gaps.reduce((most, gap) => (gap.excess > most.excess ? gap : most));
  if (worst.excess <= 1) {
    const many = gaps.length === 1 ? 'The probe agrees' : `${gaps.length} probes agree`;
    return {
      id: 'model',
      severity: 'good',
      title: `${many} with the model within ${percent(DISAGREE_SHARE)}`,
      why: `The train is computed to leave ${say.water(polishedStation(solved).state.ec25UScm)}.`,
    };
  }
  return {
    id: 'model',
    severity: 'mind',
    title: `${worst.probe.name} reads ${say.water(worst.read)}, the model says ${say.water(worst.model)}`,
    why:
      worst.probe.after === 'tap'
        ? 'Enter the present tap reading in Water, or check the meter with a second one.'
        : 'Look at pressure and temperature first, then at the stage before this probe.',
  };
}

function ratioFinding(system: System, last: Reading): Finding | null {
  const ratio = readingRatio(last);
  // The schools of 3 to 6 parts speak of household units with a restrictor; a valve is set to its own target.
  const byValve = system.train.stages.some((stage) => stage.kind === 'membrane' && stage.valve !== null);
  if (ratio === null || byValve || isUsualRatio(ratio)) return null;
  const say = words(system.units);
  return {
    id: 'ratio',
    severity: 'mind',
    title: `Waste to product was ${say.ratio(ratio)}`,
    why:
      ratio < USUAL_RATIO.least
        ? `Below ${USUAL_RATIO.least} : 1 too much is kept back. Set it again in Build.`
        : `Above ${USUAL_RATIO.most} : 1 much goes to the drain. Cold water does this; set it again in Build when warm.`,
  };
}
