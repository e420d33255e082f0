import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { feedViscosity } from './channel';
import type { MembraneUnit, UnitConditions } from './model';
import { runUnitAt } from './operation';
import type { FeedSpecies } from './species';
import { saltFactor, waterFactor, waterFactorAstm } from './temperature';

/** One set of readings of a membrane unit. */
export interface UnitReading {
  readonly feedPressureBar: number;
  /** Feed to concentrate. */
  readonly pressureDropBar: number;
  readonly permeatePressureBar: number;
  readonly feedMgL: number;
  readonly permeateMgL: number;
  readonly temperatureC: number;
  readonly permeateLPerH: number;
  /** 0–1. */
  readonly recovery: number;
}

export interface NormalisedReading {
  readonly netDrivingPressureBar: number;
  readonly normalisedPermeateLPerH: number;
  readonly normalisedSaltPassage: number;
  readonly normalisedDropBar: number;
  /** Against the reference, as shares. */
  readonly changes: { readonly permeate: number; readonly saltPassage: number; readonly drop: number };
}

/** Osmotic pressure of ASTM D4516, bar; C mg/L as NaCl. For normalising logs only. */
export function astmOsmoticBar(mgL: number, temperatureC: number): number {
  return (0.2654 * mgL * (temperatureC + 273.15)) / (1000 - mgL / 1000) / 100;
}

/** Mean strength along the feed side, by the logarithm of the concentration factor. */
export function feedBrineMgL(feedMgL: number, recovery: number): number {
  return recovery < 1e-9 ? feedMgL : (feedMgL * Math.log(1 / (1 - recovery))) / recovery;
}

function drivingPressureBar(r: UnitReading): number {
  const brine = feedBrineMgL(r.feedMgL, r.recovery);
  return (
    r.feedPressureBar -
    r.pressureDropBar / 2 -
    r.permeatePressureBar -
    astmOsmoticBar(brine, r.temperatureC) +
    astmOsmoticBar(r.permeateMgL, r.temperatureC)
  );
}

function readingError(which: string, r: UnitReading): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange(`${which}.feedPressureBar`, 'Feed pressure', r.feedPressureBar, 0, 100, 'bar'),
    outOfRange(`${which}.pressureDropBar`, 'Pressure drop', r.pressureDropBar, 0, 100, 'bar'),
    outOfRange(`${which}.permeatePressureBar`, 'Product pressure', r.permeatePressureBar, 0, 100, 'bar'),
    outOfRange(`${which}.feedMgL`, 'Feed strength', r.feedMgL, 0.1, 60_000, 'mg/L'),
    outOfRange(`${which}.permeateMgL`, 'Product strength', r.permeateMgL, 0, 60_000, 'mg/L'),
    outOfRange(`${which}.temperatureC`, 'Temperature', r.temperatureC, 0.1, 60, '°C'),
    outOfRange(`${which}.permeateLPerH`, 'Product flow', r.permeateLPerH, 1e-3, 100_000, 'L/h'),
    outOfRange(`${which}.recovery`, 'Recovery', r.recovery, 0, 0.95),
  );
}

/**
 * Brings a reading to the conditions of a reference: output, salt passage and pressure drop as they would be with the
 * same pressure, temperature and feed. ASTM D4516 (recalled).
 *
 * @param law temperature law of the water permeability: the simulator's, or the standard's 3 % per °C
 * @returns an error naming the pressures when nothing drives water through
 */
export function normalise(
  reference: UnitReading,
  actual: UnitReading,
  law: 'arrhenius' | 'astm' = 'arrhenius',
): Outcome<NormalisedReading> {
  const invalid = firstError(readingError('reference', reference), readingError('actual', actual));
  if (invalid) return { ok: false, error: invalid };
  const driveS = drivingPressureBar(reference);
  const driveA = drivingPressureBar(actual);
  if (driveS <= 0 || driveA <= 0) {
    const which = driveA <= 0 ? actual : reference;
    return fail(
      'feedPressureBar',
      which.feedPressureBar,
      'a feed pressure above osmotic and product pressure',
      `A feed pressure of ${which.feedPressureBar} bar does not exceed the osmotic and product pressure: this reading cannot be normalised.`,
    );
  }
  const factor = law === 'astm' ? waterFactorAstm : waterFactor;
  const normalisedPermeateLPerH = (actual.permeateLPerH * driveS * factor(reference.temperatureC)) / (driveA * factor(actual.temperatureC));
  const concentration = (r: UnitReading): number => feedBrineMgL(r.feedMgL, r.recovery) / r.feedMgL;
  const passage = (r: UnitReading): number => r.permeateMgL / r.feedMgL;
  const normalisedSaltPassage =
    (passage(actual) *
      (actual.permeateLPerH / reference.permeateLPerH) *
      (saltFactor(reference.temperatureC) / saltFactor(actual.temperatureC)) *
      concentration(reference)) /
    concentration(actual);
  const meanFlow = (r: UnitReading): number => (r.permeateLPerH / r.recovery) * (1 - r.recovery / 2);
  const viscosity = (r: UnitReading): number => feedViscosity(r.temperatureC, 0);
  const normalisedDropBar =
    actual.pressureDropBar * (meanFlow(reference) / meanFlow(actual)) ** 1.7 * (viscosity(reference) / viscosity(actual)) ** 0.3;
  return ok({
    netDrivingPressureBar: driveA,
    normalisedPermeateLPerH,
    normalisedSaltPassage,
    normalisedDropBar,
    changes: {
      permeate: normalisedPermeateLPerH / reference.permeateLPerH - 1,
      saltPassage: normalisedSaltPassage / passage(reference) - 1,
      drop: normalisedDropBar / reference.pressureDropBar - 1,
    },
  });
}

/** Fouling factors with which the model makes what was measured: output and salt passage apart, polarization counted. */
export function fitFactors(
  unit: MembraneUnit,
  feed: FeedSpecies,
  at: UnitConditions,
  feedLPerH: number,
  measured: { readonly permeateLPerH: number; readonly passage: number },
): Outcome<{ readonly water: number; readonly salt: number }> {
  const strength = (mmolL: ArrayLike<number>): number => Array.from(mmolL).reduce((sum, c) => sum + c, 0);
  let factors = { ...unit.factors };
  for (let round = 0; round < 40; round++) {
    const run = runUnitAt({ ...unit, factors }, feed, at, feedLPerH);
    if (!run.ok) return run;
    if (!run.value.permeateMmolL)
      return fail(
        'permeateLPerH',
        measured.permeateLPerH,
        'a unit that makes water',
        'At these pressures the model makes no water to fit.',
      );
    const passage = strength(run.value.permeateMmolL) / strength(feed.mmolL);
    const water = measured.permeateLPerH / run.value.permeateLPerH;
    const salt = measured.passage / (1 - measured.passage) / (passage / (1 - passage));
    factors = { water: factors.water * water, salt: factors.salt * salt };
    if (Math.abs(water - 1) < 1e-8 && Math.abs(salt - 1) < 1e-8) return ok(factors);
  }
  return fail(
    'permeateLPerH',
    measured.permeateLPerH,
    'readings one membrane can show',
    'No state of this membrane shows both this output and this salt passage.',
  );
}
