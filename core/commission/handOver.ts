import { mapStages, NOTHING_SAID, type Reading, type System, type Work } from '../file';
import { kindOf, type Caution, type Stage } from '../stage';
import { readingFromEc25 } from '../water';
import { todayOf } from './expected';
import { runbook, runbookSteps } from './runbook';
import { trainChange } from './trainChange';
import { lastMeasured } from './work';

/** What the end of a piece of work leaves: the system with it closed, and the first reading of the log, where one was taken. */
export interface HandedOver {
  readonly system: System;
  readonly reading: Reading | null;
}

/** The step whose figures are the baseline. */
export const BASELINE_STEP = 'baseline';

/**
 * The baseline as a reading of the log: each probe as its own meter showed it, flows, and the pressure and temperature
 * they were read at; null where nothing was read.
 */
export function baselineReading(system: System, work: Work, id: string, at: string): Reading | null {
  const read = (measure: string): number | null => lastMeasured(work, BASELINE_STEP, measure)?.value ?? null;
  const values = system.train.probes.flatMap((probe) => {
    const ec25 = read(`probe-${probe.id}`);
    const instrument = system.instruments.find((one) => one.id === probe.instrumentId);
    const read25 = ec25 !== null && instrument ? readingFromEc25(ec25, instrument.scale) : null;
    if (read25 === null || !instrument) return [];
    const steps = read25 / instrument.resolution;
    // As it stood on the display: no digit it cannot show.
    return [{ probeId: probe.id, instrumentId: instrument.id, shown: Number((Math.round(steps) * instrument.resolution).toPrecision(12)) }];
  });
  const [productLPerH, wasteLPerH] = [read('productLPerH'), read('wasteLPerH')];
  if (values.length === 0 && productLPerH === null) return null;
  const { linePressureBar, temperatureC } = todayOf(work.measured);
  return {
    id,
    systemId: system.id,
    at,
    values,
    pressureBar: linePressureBar,
    temperatureC,
    productLPerH,
    wasteLPerH,
    meterL: null,
    ...NOTHING_SAID,
    also: system.train.gauges.flatMap(({ id: gaugeId }) => {
      const value = read(`gauge-${gaugeId}`);
      return value === null ? [] : [{ gaugeId, value }];
    }),
    note: 'baseline',
  };
}

/** Stages that are fitted by a piece of work: new from then on, and counting their days from it. */
export function fittedBy(system: System, work: Work): (stage: Stage) => boolean {
  if (work.kind === 'partChange') return ({ id }) => id === work.stageId;
  const before = system.build.commissioned?.train;
  if (work.kind === 'newBuild' || !before)
    return (stage) => work.kind !== 'putAway' && work.kind !== 'bringBack' && 'fittedOn' in stage && stage.fittedOn === null;
  if (work.kind !== 'upgrade') return () => false;
  const { added, rebuilt } = trainChange(before, system.train);
  const fresh = new Set([...added, ...rebuilt.map(({ after }) => after)].map(({ id }) => id));
  return ({ id }) => fresh.has(id);
}

/** Cautions that stood at the steps that were done, each once. */
export function cautionsGiven(system: System, work: Work): Caution[] {
  const done = new Set(work.done.map(({ step }) => step));
  const steps = runbookSteps(runbook(system, null, work)).filter(({ id }) => done.has(id));
  return [...new Map(steps.flatMap(({ cautions }) => cautions).map((one) => [one.title, one])).values()];
}

/**
 * Ends the open piece of work: what it fitted counts its days from today, the train as it stands is what later work is
 * held against, and the baseline goes to the log.
 *
 * @param at instant of the hand-over
 * @param readingId an id nothing bears yet
 */
export function handedOver(system: System, work: Work, at: string, readingId: string): HandedOver {
  const fitted = fittedBy(system, work);
  const train = mapStages(system.train, (stage) =>
    'fittedOn' in stage && fitted(stage) ? { ...kindOf(stage).renewed(stage), fittedOn: at.slice(0, 10) } : stage,
  );
  const reading = baselineReading(system, work, readingId, at);
  const keeps = work.kind === 'putAway';
  return {
    reading,
    system: {
      ...system,
      train,
      build: {
        ...system.build,
        works: system.build.works.map((one) => (one.id === work.id ? { ...one, endedAt: at, cautions: cautionsGiven(system, work) } : one)),
        commissioned: keeps ? system.build.commissioned : { at, train, readingId: reading?.id ?? null },
      },
    },
  };
}

/** What a step left out costs later, by what it would have done; one line for the record. */
const COSTS: Readonly<Record<string, string>> = {
  baseline: 'Without a baseline three checks do later what one would.',
  ratio: 'Without the ratio nobody can say later whether the restrictor or the membrane changed.',
  trim: 'The ratio stays where it is: scale or wasted water, unnoticed.',
  leaks: 'A joint that weeps now floods a floor later.',
  tryFloat: 'A float nobody tried is how basements are flooded.',
  linePressure: 'Every prediction below follows the planned pressure instead of the real one.',
  filterDrop: 'Clogging will be told from a guess, not from this day.',
  flushFilters: 'Carbon dust on the membrane cannot be rinsed off again.',
  flushPreservative: 'Preservative in the resin, and in what drinks the water.',
  soak: 'A dry membrane reads low: the ratio would be cut for a state that passes.',
  taste: 'A rolled O-ring is found by the customer instead of by you.',
  readPorts: 'One bad vessel hides in the mixture of all.',
  rinse: 'What it rinses out goes to the tank.',
  setDial: 'Taste and litres are guessed from the chart.',
  presetMeter: 'Nobody is told when the cartridge is spent.',
  charge: 'A tank charged wrong holds little and stops the unit early.',
  probes: 'A probe that stands wrong misleads every later reading.',
  bleed: 'Air at the pins reads as a fault that is none.',
  handOver: 'Nobody on site knows how to shut it off.',
};

/** What leaving a step out costs later. */
export const skippingCosts = (act: string): string => COSTS[act] ?? 'The record will say that it was left out.';
