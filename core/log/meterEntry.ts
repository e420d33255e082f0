import type { Instrument } from '../file';
import { fail, ok, parseQuantity, plainText, readNumber, unitBySpelling, type Outcome } from '../quantity';
import { ec25FromReading, readingFromEc25, type MeterScale } from '../water';

/** Unit an instrument shows. */
export function shownUnitOf({ scale }: Pick<Instrument, 'scale'>): 'ppm' | 'µS/cm' | 'g/kg' | 'MΩ·cm' {
  switch (scale.kind) {
    case 'conductivity':
      return 'µS/cm';
    case 'salinity':
      return 'g/kg';
    case 'resistivity':
      return 'MΩ·cm';
    case 'factor':
    case 'curve':
      return 'ppm';
  }
}

/** A ppm of another pen is taken for one of the common factor. */
const COMMON_PPM: MeterScale = { kind: 'factor', factor: 0.5 };
const SALINITY: MeterScale = { kind: 'salinity' };
const RESISTIVITY: MeterScale = { kind: 'resistivity' };
const MOST_SHOWN = 200_000;
/** Density of sea water at 15 °C, kg/L (recalled). */
const SALT_WATER_KG_PER_L = 1.026;

/** What the scale of a typed unit stands for: the unit's own, and how many of its steps the figure has. */
function typedScale(unit: string): { readonly scale: MeterScale; readonly times: number } | null {
  const conductivity = unitBySpelling('conductivityUScm', unit);
  if (conductivity?.ppm) return { scale: COMMON_PPM, times: 1 };
  if (conductivity && !conductivity.inverse) return { scale: { kind: 'conductivity' }, times: conductivity.factor };
  if (unitBySpelling('salinityGPerKg', unit)) return { scale: SALINITY, times: 1 };
  const concentration = unitBySpelling('concentrationMgL', unit);
  // Grams of salt in a litre are the sea's, not a pen's factor: a salinity, by the weight of such a litre.
  if (concentration && concentration.factor >= 1000) return { scale: SALINITY, times: concentration.factor / 1000 / SALT_WATER_KG_PER_L };
  return concentration ? { scale: COMMON_PPM, times: concentration.factor } : null;
}

/**
 * What an instrument showed, as it was typed: a bare number in its own unit, or a figure in another, turned into what
 * this instrument would have shown.
 *
 * @returns the figure in the instrument's unit, or an error that names the field and what is accepted
 * @example meterEntry('380 ppm', meter, 'Tap') // 380 on a ppm meter, 760 on one of µS/cm
 */
export function meterEntry(text: string, instrument: Pick<Instrument, 'scale'>, field: string): Outcome<number> {
  const own = shownUnitOf(instrument);
  const accepted = `0 to ${MOST_SHOWN} ${own}, or a figure with ppm, µS, mS, g/L or g/kg`;
  // Grouped thousands, fractions and what is ambiguous are read and told as everywhere.
  const plain = parseQuantity(text, 'count', { field, high: MOST_SHOWN });
  if (plain.ok) return ok(plain.value.value);
  const read = readNumber(
    plainText(text).replace(/^(\d{1,3})((?: \d{3})+)(?!\d)/, (_, head: string, rest: string) => head + rest.replaceAll(' ', '')),
  );
  const unit = read.kind === 'number' ? read.rest.trim() : '';
  if (read.kind !== 'number' || unit === '') return plain;
  const inverse = unitBySpelling('conductivityUScm', unit)?.inverse;
  const typed = inverse ? { scale: RESISTIVITY, times: 1 } : typedScale(unit);
  if (!typed) return fail(field, text, accepted, `${field}: “${unit}” is not a unit a meter shows. Accepted: ${accepted}.`);
  const value = read.value * typed.times;
  // A figure in the unit of the meter is what it shows, whatever salt its scale stands for.
  const isPpm = instrument.scale.kind === 'factor' || instrument.scale.kind === 'curve';
  if (typed.scale.kind === instrument.scale.kind || (isPpm && typed.scale === COMMON_PPM)) return within(value);
  const ec25 = ec25FromReading(value, typed.scale);
  return ec25.ok ? within(readingFromEc25(ec25.value, instrument.scale)) : { ok: false, error: { ...ec25.error, field } };

  function within(shown: number | null): Outcome<number> {
    return shown !== null && shown >= 0 && shown <= MOST_SHOWN
      ? ok(shown)
      : fail(field, text, accepted, `${field} is ${text.trim()}, which this meter cannot show; accepted is ${accepted}.`);
  }
}
