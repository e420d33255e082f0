import type { Reading, System } from '../file';
import { goalLimits } from '../goal';
import { THIN } from '../quantity';
import { polishedStation, words, type Finding, type SolvedTrain } from '../train';
import { inOrder, probeEc25, probeRoles, readingRatio, saltRemoved } from './series';
import type { ResinTracking } from './resin';

/** Two instruments disagree only beyond this (water chapter, section 5): share of the value, or µS/cm near zero. */
const DISAGREE_SHARE = 0.15;
const DISAGREE_USCM = 2;
const GAP_DAYS = 60;

const percent = (share: number): string => `${Math.round(100 * share)}${THIN}%`;

/** A calendar day in words, from an instant. */
const dayWords = (instant: string): string =>
  new Date(instant).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });

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
): Finding[] {
  const ordered = inOrder(readings);
  const last = ordered[ordered.length - 1];
  if (!last) {
    return [
      {
        id: 'empty',
        severity: 'note',
        title: '0 readings so far',
        why: 'Type the first one above: the probes from the tap onward, then pressure and temperature.',
      },
    ];
  }
  return [
    productFinding(system, last),
    ...resinFindings(tracking, now),
    removalFinding(system, ordered),
    modelFinding(system, last, solved),
    ratioFinding(system, last),
  ].filter((finding): finding is Finding => finding !== null);
}

function productFinding(system: System, last: Reading): Finding | null {
  const roles = probeRoles(system);
  const probe = roles.afterResin ?? roles.afterMembrane;
  const ec25 = probe && probeEc25(last, probe.id, system.instruments);
  const limit = goalLimits(system.goal, system.units.ppmFactor).find((candidate) => candidate.quantity === 'ec25UScm');
  if (!probe || ec25 === null || ec25 === undefined || !limit) return null;
  const say = words(system.units);
  const over = limit.high !== null && ec25 > limit.high;
  if (!over)
    return {
      id: 'product',
      severity: 'good',
      title: `Product reads ${say.water(ec25)}`,
      why: `The goal asks for at most ${say.water(limit.high ?? 0)} ${probe.name.toLowerCase()}.`,
    };
  return {
    id: 'product',
    severity: 'bad',
    title: `Product reads ${say.water(ec25)}, the goal is ${say.water(limit.high!)}`,
    why: roles.afterResin
      ? 'Flush two minutes and read again. If it stays, the resin is spent or lets water slip by: repack or change it.'
      : 'Flush two minutes and read again before judging the membrane.',
  };
}

function resinFindings(tracking: ResinTracking | null, now: string): (Finding | null)[] {
  if (!tracking) return [];
  const { remaining, daysLeft, name } = tracking;
  const spread = percent((remaining.p90 - remaining.p10) / 2).replace(`${THIN}%`, '');
  const left = `${percent(remaining.p50)} ± ${spread} left in ${name.toLowerCase()}`;
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
  const from = dayWords(new Date(Date.parse(now) + daysLeft.p10 * 86_400_000).toISOString());
  const to = dayWords(new Date(Date.parse(now) + daysLeft.p90 * 86_400_000).toISOString());
  const severity = daysLeft.p10 <= 7 ? 'bad' : daysLeft.p10 <= 30 ? 'mind' : 'good';
  return [
    {
      id: 'resin',
      severity,
      title: severity === 'good' ? left : `Have resin ready by ${from}`,
      why: `${severity === 'good' ? '' : `${left}. `}Spent between ${from} and ${to}; the ${tracking.limiting} side goes first.${basis}${rate}`,
    },
    gap,
  ];
}

function removalFinding(system: System, ordered: readonly Reading[]): Finding | null {
  const roles = probeRoles(system);
  const series = ordered
    .map((reading) => saltRemoved(reading, roles, system.instruments))
    .filter((value): value is number => value !== null);
  const first = series[0];
  const last = series[series.length - 1];
  if (first === undefined || last === undefined) return null;
  const passage = (1 - last) / Math.max(1e-6, 1 - first);
  const shown = `${(100 * last).toFixed(1)}${THIN}%`;
  if (series.length > 1 && passage > 1.5) {
    return {
      id: 'removal',
      severity: 'mind',
      title: `Salt removed ${shown}, was ${(100 * first).toFixed(1)}${THIN}%`,
      why: `${passage.toFixed(1)} times as much passes as at the start. Compare at the same pressure and temperature before blaming the membrane.`,
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
    const station = solved.stations.find((candidate) => candidate.after === probe.after);
    const instrument = system.instruments.find((candidate) => candidate.id === probe.instrumentId);
    if (read === null || !station || !instrument) return [];
    // Below what a whole-ppm meter resolves, any reading agrees.
    const blind = instrument.scale.kind === 'conductivity' ? instrument.resolution : instrument.resolution / 0.5;
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
  if (ratio === null || byValve || (ratio >= 3 && ratio <= 6)) return null;
  const say = words(system.units);
  return {
    id: 'ratio',
    severity: 'mind',
    title: `Waste to product was ${say.ratio(ratio)}`,
    why:
      ratio < 3
        ? 'Below 3 : 1 too much is kept back. Set it again in Build.'
        : 'Above 6 : 1 much goes to the drain. Cold water does this; set it again in Build when warm.',
  };
}
