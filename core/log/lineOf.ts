import { furtherGauges, gaugeValue, type Instrument, type Reading, type System } from '../file';
import { formatIn, plainText, type Dimension } from '../quantity';
import type { QuickReading } from './quickline';

const trimmed = (value: number): string => String(Number(value.toPrecision(7)));
const MINUTES_PER_HOUR = 60;

/**
 * A reading as the line that would be typed for it, without its day: what is edited in place. Read back by the quick line
 * it gives the same figures to the digits shown; see `edited` for those that nobody touched.
 */
export function lineOf(reading: Reading, { train, units }: Pick<System, 'train' | 'units'>): string {
  const { probes } = train;
  const first = (probeId: string): string => {
    const value = reading.values.find((one) => one.probeId === probeId);
    return value ? trimmed(value.shown) : '-';
  };
  const last = probes.findLastIndex(({ id }) => reading.values.some(({ probeId }) => probeId === id));
  const inUnit = (value: number | null, dimension: Dimension, unit: string): string =>
    value === null ? '' : `${plainText(formatIn(value, dimension, unit).number).replace(/[^\d.-]/g, '')}${unit.replace('°', '')}`;
  const jug = units.volume === 'gal' ? 'cup' : 'mL';
  const perMinute = (value: number | null): string =>
    value === null ? '-' : trimmed(Number(((value / MINUTES_PER_HOUR) * (jug === 'mL' ? 1000 : 1000 / 236.5882365)).toPrecision(4)));
  const flows =
    reading.productLPerH === null && reading.wasteLPerH === null
      ? ''
      : `${perMinute(reading.productLPerH)}/${perMinute(reading.wasteLPerH)}${jug}`;
  // A gauge that was passed over holds its place where a later one was read.
  const further = (flow: boolean): string[] => {
    const own = furtherGauges(train, flow);
    const unit = flow ? 'L/h' : units.pressure;
    return own
      .slice(0, own.findLastIndex(({ id }) => gaugeValue(reading, id) !== null) + 1)
      .map(({ id }) => inUnit(gaugeValue(reading, id), flow ? 'flowLPerH' : 'pressureBar', unit) || `-${unit}`);
  };
  const pressures = further(false);
  const meters = further(true);
  return [
    ...probes.slice(0, last + 1).map(({ id }) => first(id)),
    inUnit(reading.pressureBar, 'pressureBar', units.pressure) || (pressures.length > 0 ? `-${units.pressure}` : ''),
    ...pressures,
    inUnit(reading.temperatureC, 'temperatureC', units.temperature),
    flows || (meters.length > 0 ? '-L/h -L/h' : ''),
    ...meters,
    inUnit(reading.meterL, 'volumeL', units.volume),
    reading.note,
  ]
    .filter((piece) => piece !== '')
    .join(' ');
}

/**
 * A reading as a person changed its line: figures whose piece of the line says what it said keep every digit they had, a
 * second meter at a probe stays, and a figure typed anew is no longer confirmed.
 *
 * @param was the line as it stood before, read
 * @param now the line as it stands, read
 */
export function edited(reading: Reading, was: QuickReading, now: QuickReading, instruments: readonly Instrument[]): Reading {
  const near = (a: number | null, b: number | null): boolean =>
    a === b || (a !== null && b !== null && Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a)));
  const kept = <K extends 'pressureBar' | 'temperatureC' | 'productLPerH' | 'wasteLPerH' | 'meterL'>(key: K): number | null =>
    near(was[key], now[key]) ? reading[key] : now[key];
  const values = now.values.map((value) => {
    const before = was.values.find(({ probeId }) => probeId === value.probeId);
    const stored = reading.values.find(({ probeId }) => probeId === value.probeId);
    return before && stored && near(before.shown, value.shown) ? stored : value;
  });
  // Of a probe read with two meters the line says the first.
  const seconds = reading.values.filter(
    (value, i) =>
      reading.values.findIndex(({ probeId }) => probeId === value.probeId) !== i && instruments.some(({ id }) => id === value.instrumentId),
  );
  const changed = (field: string): boolean => {
    if (field.startsWith('probe:')) {
      const id = field.slice('probe:'.length);
      const shown = (one: { readonly values: Reading['values'] }): number | null =>
        one.values.find(({ probeId }) => probeId === id)?.shown ?? null;
      return !near(shown(was), shown(now));
    }
    return field !== 'at' && !near(was[field as 'meterL'], now[field as 'meterL']);
  };
  return {
    ...reading,
    values: [...values, ...seconds],
    pressureBar: kept('pressureBar'),
    temperatureC: kept('temperatureC'),
    productLPerH: kept('productLPerH'),
    wasteLPerH: kept('wasteLPerH'),
    meterL: kept('meterL'),
    also: now.also.map((one) => {
      const [before, stored] = [was, reading].map(({ also }) => also.find(({ gaugeId }) => gaugeId === one.gaugeId));
      return before && stored && near(before.value, one.value) ? stored : one;
    }),
    note: now.note,
    confirmed: reading.confirmed.filter((field) => !changed(field)),
  };
}
