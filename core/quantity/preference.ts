import type { Dimension } from './units';

/** The units a person may choose, by what is measured: each for itself. */
export const UNIT_CHOICES = {
  /** MΩ·cm stands for water purer than 1 µS/cm; what is less pure is told in µS/cm. */
  strength: ['ppm', 'µS/cm', 'MΩ·cm'],
  pressure: ['psi', 'bar', 'kPa'],
  temperature: ['°F', '°C'],
  volume: ['gal', 'L'],
  flow: ['gal/day', 'gal/h', 'gal/min', 'L/day', 'L/h', 'L/min', 'mL/min'],
  length: ['in', 'cm', 'mm'],
  hardness: ['mg/L CaCO₃', '°dH', 'gpg', '°fH'],
} as const;
export type Measured = keyof typeof UNIT_CHOICES;
export type HardnessUnit = (typeof UNIT_CHOICES.hardness)[number];

/** How a system's figures are shown. Switching never changes a stored value. */
export type UnitPreference = { readonly [M in Measured]: (typeof UNIT_CHOICES)[M][number] } & {
  /** ppm shown per µS/cm. */
  readonly ppmFactor: number;
};

/** Units that go together in a trade; hardness and the meter's factor stay as they are. */
export type UnitPreset = Omit<UnitPreference, 'hardness' | 'ppmFactor'>;
const METRIC: UnitPreset = { strength: 'µS/cm', pressure: 'bar', temperature: '°C', volume: 'L', flow: 'L/h', length: 'cm' };
export const UNIT_PRESETS = [
  {
    key: 'gallons',
    title: 'ppm · psi · °F · gal',
    units: { strength: 'ppm', pressure: 'psi', temperature: '°F', volume: 'gal', flow: 'gal/day', length: 'in' },
  },
  { key: 'ppmLitres', title: 'ppm · bar · °C · L', units: { ...METRIC, strength: 'ppm' } },
  { key: 'litres', title: 'µS/cm · bar · °C · L', units: METRIC },
] as const satisfies readonly { key: string; title: string; units: UnitPreset }[];
export type UnitPresetKey = (typeof UNIT_PRESETS)[number]['key'];

/** What stands where nobody has chosen. */
export const METRIC_UNITS: UnitPreference = { ...METRIC, hardness: 'mg/L CaCO₃', ppmFactor: 0.5 };
export const GALLON_UNITS: UnitPreference = { ...METRIC_UNITS, ...UNIT_PRESETS[0].units };

/** The preset a preference is, or null for a choice of one's own. */
export const presetOf = (preference: UnitPreference): UnitPresetKey | null =>
  UNIT_PRESETS.find(({ units }) => Object.entries(units).every(([measured, unit]) => preference[measured as Measured] === unit))?.key ??
  null;

/** A preference with another preset's units. */
export const withPreset = (preference: UnitPreference, key: UnitPresetKey): UnitPreference => ({
  ...preference,
  ...UNIT_PRESETS.find((preset) => preset.key === key)!.units,
});

/** The symbol in which a dimension is shown under a preference. */
export function shownUnit(dimension: Dimension, preference: UnitPreference): string {
  switch (dimension) {
    case 'hardnessMgL':
    case 'alkalinityMgL':
      return preference.hardness;
    case 'conductivityUScm':
      return preference.strength === 'ppm' ? 'ppm' : 'µS/cm';
    case 'pressureBar':
      return preference.pressure;
    case 'temperatureC':
      return preference.temperature;
    case 'volumeL':
      return preference.volume;
    case 'flowLPerH':
      return preference.flow;
    case 'lengthMm':
      return preference.length;
    case 'saltGPerL':
      return preference.volume === 'gal' ? 'lb/ft³' : 'g/L';
    case 'surfaceM2':
      return preference.length === 'in' ? 'ft²' : 'm²';
    default:
      return ALWAYS[dimension];
  }
}

/** Units of what is told in one everywhere. */
const ALWAYS = {
  concentrationMgL: 'mg/L',
  poreUm: 'µm',
  massG: 'g',
  kvM3PerH: 'm³/h',
  equivalents: 'eq',
  intensityMWPerCm2: 'mW/cm²',
  currentA: 'A',
  voltageV: 'V',
  gasPpm: 'ppm',
  densityKgPerL: 'kg/L',
  salinityGPerKg: 'g/kg',
  timeS: 's',
  ph: '',
  ratio: ': 1',
  fraction: '%',
  count: '',
} as const;

/** The unit another trade would use. */
const OTHER: Readonly<Partial<Record<string, string>>> = {
  ppm: 'µS/cm',
  'µS/cm': 'ppm',
  psi: 'bar',
  bar: 'psi',
  kPa: 'psi',
  '°F': '°C',
  '°C': '°F',
  gal: 'L',
  L: 'gal',
  'gal/day': 'L/h',
  'gal/h': 'L/h',
  'gal/min': 'L/min',
  'L/day': 'gal/day',
  'L/h': 'gal/day',
  'L/min': 'gal/min',
  'mL/min': 'gal/day',
  in: 'cm',
  cm: 'in',
  mm: 'in',
  'lb/ft³': 'g/L',
  'g/L': 'lb/ft³',
  'ft²': 'm²',
  'm²': 'ft²',
};

/** The other common unit of a dimension, for a hint; null when there is none. */
export function hintUnit(dimension: Dimension, preference: UnitPreference): string | null {
  if (dimension === 'hardnessMgL' || dimension === 'alkalinityMgL') return preference.hardness === '°dH' ? 'mg/L CaCO₃' : '°dH';
  return OTHER[shownUnit(dimension, preference)] ?? null;
}
