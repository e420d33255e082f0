import { METRIC_UNITS, type UnitPreference } from '@yes-clear/core/quantity';
import type { MeterScale } from '@yes-clear/core/water';

/** Scales a pen or in-line meter may have; the factor ones are what instruments print. */
export const SCALES: readonly {
  readonly key: string;
  readonly title: string;
  readonly scale: MeterScale;
  readonly factor: number | null;
}[] = [
  { key: 'ec', title: 'Conductivity, µS/cm', scale: { kind: 'conductivity' }, factor: null },
  { key: 'f0.5', title: 'ppm, factor 0.5', scale: { kind: 'factor', factor: 0.5 }, factor: 0.5 },
  { key: 'f0.55', title: 'ppm, factor 0.55', scale: { kind: 'factor', factor: 0.55 }, factor: 0.55 },
  { key: 'f0.64', title: 'ppm, factor 0.64', scale: { kind: 'factor', factor: 0.64 }, factor: 0.64 },
  { key: 'f0.7', title: 'ppm, factor 0.7', scale: { kind: 'factor', factor: 0.7 }, factor: 0.7 },
  { key: 'cNaCl', title: 'ppm as NaCl', scale: { kind: 'curve', salt: 'NaCl' }, factor: 0.5 },
  { key: 'cKCl', title: 'ppm as KCl', scale: { kind: 'curve', salt: 'KCl' }, factor: 0.52 },
  {
    key: 'cmixedSalts',
    title: 'ppm, mixed salts (sulfate, bicarbonate, chloride 4 : 4 : 2)',
    scale: { kind: 'curve', salt: 'mixedSalts' },
    factor: 0.68,
  },
  { key: 'salinity', title: 'Salinity, g/kg', scale: { kind: 'salinity' }, factor: null },
  { key: 'resistivity', title: 'Resistivity, MΩ·cm', scale: { kind: 'resistivity' }, factor: null },
];

export function scaleKey(scale: MeterScale): string {
  switch (scale.kind) {
    case 'conductivity':
      return 'ec';
    case 'salinity':
    case 'resistivity':
      return scale.kind;
    case 'factor':
      return `f${scale.factor}`;
    case 'curve':
      return `c${scale.salt}`;
  }
}
export const scaleTitle = (scale: MeterScale): string =>
  SCALES.find((row) => row.key === scaleKey(scale))?.title ?? `ppm, factor ${scale.kind === 'factor' ? scale.factor : ''}`;

/** What a meter shows is a plain number in its own unit; its conductivity is worked out by its scale. */
export const PLAIN_UNITS: UnitPreference = { ...METRIC_UNITS, ppmFactor: 1 };
