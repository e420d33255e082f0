import { smallestStepUScm } from '../water';
import { isUsualRatio, USUAL_RATIO } from '../membrane';
import { allStages, FIRST_YEAR, isLikelyDate, LAST_YEAR, stoodBefore, undatedStages, type Reading, type System } from '../file';
import { bedCapacityEq, judgeRise, type RisePoint } from '../exchange';
import { GOAL_ROWS, outsideStrength, strengthTexts } from '../goal';
import { yearStandings } from '../life';
import { awayFinding, strengthOf } from '../advice';
import { atStart, DAY_MS, dayOfNear, dayWords, inSentence, listed, percent, THIN, words } from '../quantity';
import { cartridgeLife, stageBed, type Finding } from '../stage';
import { atPlace, polishedStation, type SolvedTrain } from '../train';
import { baselineOf, inOrder, probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
import { dateAfter } from './dates';
import { membraneFindings } from './membraneFindings';
import type { MembraneTrend } from './membraneTrend';
import { tapFindings } from './tapFinding';
import { chancePast, CLEAN, PAST } from './outlet';
import { firstRow, type ResinTracking } from './resin';
import type { Standing } from './standing';
import { dueOf } from './due';
import { narrowing } from './narrowing';

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
  const away = awayFinding(system);
  if (away) return [away];
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
    ...tapFindings(system, ordered, now),
    ...resinFindings(tracking, now),
    holdsMoreFinding(system, tracking),
    narrowingFinding(system, ordered, tracking, now),
    riseFinding(system, ordered, tracking),
    ...(today ? cartridgeFindings(system, today, now) : []),
    ...(membrane ? membraneFindings(system, ordered, membrane, now) : []),
    nothingThroughFinding(system, last, solved) ?? (membrane?.salt && membrane.salt.count > 1 ? null : removalFinding(system, ordered)),
    modelFinding(system, ordered, solved),
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
  const meter = system.instruments.find(({ id }) => id === probe.instrumentId);
  // A figure within the meter's last step of the goal is a state, no alarm (science of logs, 9).
  const past = meter ? chancePast(ec25, limit.highUScm!, smallestStepUScm(meter)) : 1;
  if (past < PAST && past > CLEAN)
    return {
      id: 'product',
      severity: 'note',
      title: `Product reads ${figures.value}, at the goal of ${figures.bound}`,
      why: 'The meter cannot tell whether it is past it. Read it again at the next use.',
    };
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
  const { remaining, daysLeft, name, beds, state, spentBetween } = tracking;
  const row = rowName(tracking);
  const left = `${percent(remaining.p50)} left in ${beds.length > 1 ? 'the ' : ''}${row} (${shareBand(remaining)}, 80${THIN}% likely)`;
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
          severity: 'note',
          title: `${Math.round(tracking.longestGapDays)} days between two readings`,
          why: 'What the resin took up meanwhile is interpolated between the two.',
        }
      : null;
  if (state === 'spent')
    return [
      {
        id: 'resin',
        severity: 'bad',
        title: `${atStart(beds.length > 1 ? `the ${row}` : name)} is exhausted`,
        why: `The product passed the goal between ${dayWords(spentBetween!.from)} and ${dayWords(spentBetween!.to)}. Change the resin${beds.length > 1 ? ': remove the first bed, move the others up, put the new one last' : ''}.`,
      },
      gap,
    ];
  if (!daysLeft) return [{ id: 'resin', severity: 'note', title: left, why: `No date: nothing has been used of late.${basis}` }, gap];
  const from = dayOfNear(dateAfter(now, daysLeft.p10), now);
  const to = dayOfNear(dateAfter(now, daysLeft.p90), now);
  const soon = daysLeft.p10 <= SOON_DAYS;
  const beside = beds.length > 1 ? ` ${bedsWords(beds)}` : '';
  return [
    {
      id: 'resin',
      severity: soon ? 'note' : 'good',
      title: soon ? `Have resin in stock by ${from}` : left,
      why: `${soon ? `${left}. ` : ''}Exhausted between ${from} and ${to} (80${THIN}% likely)${tracking.firstIon ? `; ${tracking.firstIon} probably comes through first` : ''}.${beside}${basis}${rate}`,
    },
    gap,
  ];
}

/** Clean product behind a bed that has taken up several times what its volume holds: something is not as written down. */
function holdsMoreFinding({ train }: System, tracking: ResinTracking | null): Finding | null {
  if (!tracking || tracking.state === 'spent') return null;
  const beds = firstRow(train.stages);
  const side = `${tracking.limiting}Eq` as const;
  const holds = beds.reduce((sum, bed) => sum + bedCapacityEq(stageBed(bed))[side], 0);
  if (!(holds > 0) || tracking[side] < HOLDS_TIMES * holds) return null;
  const litres = beds.reduce((sum, { volumeL }) => sum + volumeL, 0);
  return {
    id: 'holdsMore',
    severity: 'mind',
    title: `${tracking.name} took up ${Number(tracking[side].toPrecision(2))} eq by the log; ${Number(litres.toPrecision(2))} L of resin hold about ${Number(holds.toPrecision(2))}`,
    why: 'Was a cartridge changed and not written down, is it a larger one, or does the meter count gallons?',
  };
}
/** Nothing a bed does by its scatter makes it hold so many times its capacity. */
const HOLDS_TIMES = 3;

/** What would narrow the date most, with the days it gains. */
function narrowingFinding(system: System, ordered: readonly Reading[], tracking: ResinTracking | null, now: string): Finding | null {
  const look = tracking && narrowing(system, ordered, tracking, now);
  return (
    look && { id: 'narrow', severity: 'note', title: look.says, why: `${look.how} The date’s band narrows by about ${look.days} days.` }
  );
}

/** What the first row of resin is called in a sentence: a bed by its name, several as a row. */
export const rowName = ({ beds, name }: Pick<ResinTracking, 'beds' | 'name'>): string =>
  beds.length > 1 ? `row of ${beds.length} resin beds` : inSentence(name);

/** The 80 % band of what is left. */
export const shareBand = ({ p10, p90 }: ResinTracking['remaining']): string => `${Math.round(100 * p10)} to ${percent(p90)}`;

/** What each bed of a row carries, first to last. */
const bedsWords = (beds: ResinTracking['beds']): string =>
  `${beds.map(({ name, used }) => `${name} is ${percent(used)} used`).join(', ')}.`;

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
      // Past the goal it is told as exhausted, by the product itself.
      if (tracking.state === 'spent') return null;
      return {
        id: 'rise',
        severity: 'mind',
        title: `${tracking.name} is near its end: a steep rise from ${at}`,
        why: `The reading rises as exhausted resin does (slope ${slope!.toFixed(0)}). Have new resin at hand.`,
      };
    case 'early':
      return {
        id: 'rise',
        severity: 'note',
        title: `${tracking.name} ends early: a steep rise from ${at}`,
        why: `It takes up more than was counted, mostly CO₂, or holds less (slope ${slope!.toFixed(0)}).`,
      };
    case 'channeling':
      return {
        id: 'rise',
        severity: 'note',
        title: `Water slips past the resin: a flat, early rise from ${at}`,
        why: `Exhausted resin rises ten times as steeply (slope ${slope!.toFixed(1)}). Repack it, tap it down, stand it upright.`,
      };
    case 'acidOrMeter':
      return {
        id: 'rise',
        severity: 'bad',
        title: `More comes out of the resin than goes in, at ${at}`,
        why: 'Measure the pH: below 5 the anion side is exhausted, change it now. Otherwise check the meter.',
      };
    case 'meter':
      return {
        id: 'rise',
        severity: 'note',
        title: 'One reading after the resin rose fivefold and fell back',
        why: 'That was the meter, not the resin. Clean the tip of the probe.',
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

/** A membrane that lets nothing through does not exist: a probe that shows 0 behind one stands somewhere else. */
function nothingThroughFinding(system: System, last: Reading, solved: SolvedTrain): Finding | null {
  const { afterMembrane } = probeRoles(system);
  const read = afterMembrane && last.values.find(({ probeId }) => probeId === afterMembrane.id);
  const station = afterMembrane && atPlace(solved, afterMembrane);
  const meter = system.instruments.find(({ id }) => id === read?.instrumentId);
  if (!read || !station || !meter || read.shown !== 0) return null;
  // A meter in whole steps may show 0 of what is less than one.
  if (station.state.ec25UScm < NOTHING_STEPS * smallestStepUScm(meter)) return null;
  const say = words(system.units);
  return {
    id: 'removal',
    severity: 'mind',
    title: `${afterMembrane.name} reads 0; about ${say.water(station.state.ec25UScm)} is expected`,
    why: 'No membrane holds back everything. Does that probe stand behind the resin, or is its tip dry?',
  };
}
/** Steps of a meter that must be expected where it shows none. */
const NOTHING_STEPS = 3;

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

/** Readings after which the log knows its own course better than the plan does. */
const FIRST_READINGS = 2;
/** How far beyond the planned year of the supply a tap may read unasked. */
const SEASON_SLACK = 1.1;

/** Probes against the model of the train as it is; the largest gap is named, in a warning colour only while the log is new. */
function modelFinding(system: System, ordered: readonly Reading[], solved: SolvedTrain): Finding | null {
  const last = ordered.at(-1)!;
  const { weakestUScm, strongestUScm } = system.source.season;
  const gaps = system.train.probes.flatMap((probe) => {
    const read = probeEc25(last, probe.id, system.instruments);
    const station = atPlace(solved, probe);
    const instrument = system.instruments.find((candidate) => candidate.id === probe.instrumentId);
    if (read === null || !station || !instrument) return [];
    // Below what a whole-ppm meter resolves, any reading agrees.
    const blind = smallestStepUScm(instrument);
    const model = station.state.ec25UScm;
    const inSeason =
      probe.after === 'tap' &&
      weakestUScm !== null &&
      strongestUScm !== null &&
      read >= weakestUScm / SEASON_SLACK &&
      read <= strongestUScm * SEASON_SLACK;
    const tolerance = Math.max(DISAGREE_SHARE * model, DISAGREE_USCM, blind);
    return [{ probe, read, model, excess: inSeason ? 0 : Math.abs(read - model) / tolerance }];
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
      why: `The calculated product is ${say.water(polishedStation(solved).state.ec25UScm)}.`,
    };
  }
  const isNew = ordered.length <= FIRST_READINGS && worst.excess > FAR_OFF;
  return {
    id: 'model',
    severity: isNew ? 'mind' : 'note',
    title: `${worst.probe.name} reads ${say.water(worst.read)}; calculated ${say.water(worst.model)}`,
    why:
      worst.probe.after === 'tap'
        ? 'Enter the present tap reading in Water, or check the meter with a second one.'
        : 'Check pressure and temperature first, then the stage before this probe.',
  };
}
/** A gap this many times what two meters may differ by is more than the plan's own doubt. */
const FAR_OFF = 2;

function ratioFinding(system: System, last: Reading): Finding | null {
  const ratio = readingRatio(last);
  // The schools of 3 to 6 parts speak of household units with a restrictor; a valve is set to its own target.
  const byValve = system.train.stages.some((stage) => stage.kind === 'membrane' && stage.valve !== null);
  if (ratio === null || byValve || isUsualRatio(ratio)) return null;
  const say = words(system.units);
  return {
    id: 'ratio',
    severity: 'note',
    title: `Waste to product was ${say.ratio(ratio)}`,
    why:
      ratio < USUAL_RATIO.least
        ? `Below ${USUAL_RATIO.least} : 1 scale is more likely. Set the ratio again in Build.`
        : `Above ${USUAL_RATIO.most} : 1 much water goes to the drain. Cold water does this; set it again in Build when it is warm.`,
  };
}
