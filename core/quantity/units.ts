/**
 * The unit tables: every unit a person may type, by dimension, with its exact conversion to the
 * one unit the core computes in. Conversion happens only in this room.
 *
 * Sources: exact definitions of the international yard and pound agreement (1959) and of the US and
 * imperial gallons; hardness degrees from the molar masses of CaCO3 100.087 and CaO 56.077 (IUPAC).
 */

/** Litres in one US liquid gallon (exact). */
export const L_PER_US_GALLON = 3.785411784;
/** Bar in one pound-force per square inch (6894.757293168 Pa). */
export const BAR_PER_PSI = 0.06894757293168;
/** Kilograms in one pound (exact). */
export const KG_PER_POUND = 0.45359237;
/** ppm as a meter on the sodium chloride scale shows a conductivity (common practice). */
export const PPM_PER_USCM = 0.5;
/** Standard atmosphere in bar (exact). */
export const BAR_PER_ATM = 1.01325;
/** Grams of CaCO3 per mol. */
export const CACO3_G_PER_MOL = 100.087;
/** mg/L as CaCO3 in one German degree: 10 mg/L of CaO (DIN 38409-6). */
export const MG_L_PER_DH = (10 * CACO3_G_PER_MOL) / 56.077;
const GRAIN_MG = 64.79891;
const IMPERIAL_GALLON_L = 4.54609;
/** Litres in a cubic foot (exact). */
const L_PER_CUBIC_FOOT = 28.316846592;

/** One way to write a dimension: canonical = typed * factor + offset. */
export interface Unit {
  /** How the unit is shown. */
  readonly symbol: string;
  readonly factor: number;
  readonly offset?: number;
  /** Spellings accepted when typed; compared in lower case without spaces and dots. */
  readonly spellings: readonly string[];
  /** `canonical = factor / typed`, for resistivity. */
  readonly inverse?: boolean;
  /** The unit is a meter's ppm; the factor is the meter's µS/cm per ppm. */
  readonly ppm?: boolean;
}

export interface DimensionSpec {
  /** What the quantity is called in messages. */
  readonly label: string;
  /** The canonical unit, first in the list, as the core stores it. */
  readonly units: readonly [Unit, ...Unit[]];
  /** Lowest and highest canonical value accepted at the keyboard. */
  readonly low: number;
  readonly high: number;
}

const unit = (symbol: string, factor: number, ...spellings: string[]): Unit => ({ symbol, factor, spellings });

/** Amounts of water, from a spoon to a tank; canonical litres. */
const volumes: DimensionSpec['units'] = [
  unit('L', 1, 'l', 'liter', 'litre', 'liters', 'litres', 'ltr'),
  unit('mL', 0.001, 'ml', 'cc', 'milliliter', 'millilitre', 'milliliters', 'millilitres'),
  unit('gal', L_PER_US_GALLON, 'gal', 'gallon', 'gallons', 'usgal', 'usgallon', 'usgallons'),
  unit('imp gal', IMPERIAL_GALLON_L, 'impgal', 'ukgal', 'imperialgallon', 'imperialgallons'),
  unit('qt', L_PER_US_GALLON / 4, 'qt', 'quart', 'quarts'),
  unit('pt', L_PER_US_GALLON / 8, 'pt', 'pint', 'pints'),
  unit('cup', L_PER_US_GALLON / 16, 'cup', 'cups', 'uscup', 'uscups'),
  unit('metric cup', 0.25, 'metriccup', 'metriccups'),
  unit('fl oz', L_PER_US_GALLON / 128, 'floz', 'oz', 'fluidounce', 'fluidounces', 'ounce', 'ounces'),
  unit('m³', 1000, 'm3', 'm³'),
];

const hardnesses: DimensionSpec['units'] = [
  unit('mg/L CaCO₃', 1, 'mg/l', 'ppm', 'mg/lcaco3', 'mg/lcaco₃', 'ppmcaco3', 'ppmcaco₃', 'mg/lascaco3'),
  unit('°dH', MG_L_PER_DH, 'dh', '°dh', 'dgh', 'dkh', '°dkh', 'gh', 'kh'),
  unit('gpg', GRAIN_MG / L_PER_US_GALLON, 'gpg', 'gr/gal', 'grains', 'grain', 'grains/gal', 'grain/gal', 'grains/gallon'),
  unit('°fH', 10, 'fh', '°fh', '°f', 'tf'),
  unit('°e', GRAIN_MG / IMPERIAL_GALLON_L, 'e', '°e', 'clark'),
  unit('mmol/L', CACO3_G_PER_MOL, 'mmol/l', 'mmol'),
  unit('meq/L', CACO3_G_PER_MOL / 2, 'meq/l', 'meq'),
];

/** All dimensions a field can have. The key names the canonical unit. */
export const DIMENSIONS = {
  pressureBar: {
    label: 'Pressure',
    units: [
      unit('bar', 1, 'bar', 'bars'),
      unit('psi', BAR_PER_PSI, 'psi', 'psig', 'lb', 'lbs', 'pounds'),
      unit('kPa', 0.01, 'kpa'),
      unit('MPa', 10, 'mpa'),
      unit('atm', BAR_PER_ATM, 'atm'),
    ],
    low: 0,
    high: 100,
  },
  flowLPerH: {
    label: 'Flow',
    units: [
      unit('L/h', 1, 'l/h', 'lph', 'l/hr', 'l/hour'),
      unit('mL/min', 0.06, 'ml/min', 'mlpm'),
      unit('L/min', 60, 'l/min', 'lpm'),
      unit('L/day', 1 / 24, 'l/day', 'l/d', 'lpd'),
      unit('gal/day', L_PER_US_GALLON / 24, 'gal/day', 'gpd', 'gal/d'),
      unit('gal/h', L_PER_US_GALLON, 'gal/h', 'gph', 'gal/hr', 'gal/hour'),
      unit('gal/min', L_PER_US_GALLON * 60, 'gal/min', 'gpm'),
      unit('m³/h', 1000, 'm3/h', 'm³/h'),
    ],
    low: 0,
    high: 100_000,
  },
  volumeL: { label: 'Volume', units: volumes, low: 0, high: 1_000_000 },
  temperatureC: {
    label: 'Temperature',
    units: [
      unit('°C', 1, 'c', '°c', 'degc', 'celsius'),
      { symbol: '°F', factor: 5 / 9, offset: (-32 * 5) / 9, spellings: ['f', '°f', 'degf', 'fahrenheit'] },
    ],
    low: 0.1,
    high: 60,
  },
  hardnessMgL: { label: 'Hardness', units: hardnesses, low: 0, high: 20_000 },
  alkalinityMgL: { label: 'Alkalinity', units: hardnesses, low: 0, high: 20_000 },
  conductivityUScm: {
    label: 'Conductivity',
    units: [
      unit('µS/cm', 1, 'us/cm', 'µs/cm', 'μs/cm', 'us', 'µs', 'μs'),
      unit('mS/cm', 1000, 'ms/cm', 'ms'),
      unit('mS/m', 10, 'ms/m'),
      { symbol: 'ppm', factor: 2, ppm: true, spellings: ['ppm', 'tds'] },
      { symbol: 'MΩ·cm', factor: 1, inverse: true, spellings: ['mohm', 'mω', 'mω·cm', 'mωcm', 'mohmcm', 'megohm', 'megohms'] },
    ],
    low: 0,
    high: 200_000,
  },
  concentrationMgL: {
    label: 'Concentration',
    units: [unit('mg/L', 1, 'mg/l', 'ppm'), unit('µg/L', 0.001, 'ug/l', 'µg/l', 'μg/l', 'ppb'), unit('g/L', 1000, 'g/l')],
    low: 0,
    high: 300_000,
  },
  lengthMm: {
    label: 'Length',
    units: [
      unit('mm', 1, 'mm'),
      unit('cm', 10, 'cm'),
      unit('in', 25.4, 'in', 'inch', 'inches', '"', '”'),
      unit('m', 1000, 'm', 'meter', 'metre'),
      unit('ft', 304.8, 'ft', 'feet', 'foot', "'"),
    ],
    low: 0,
    high: 100_000,
  },
  poreUm: { label: 'Pore size', units: [unit('µm', 1, 'um', 'µm', 'μm', 'micron', 'microns')], low: 0, high: 10_000 },
  massG: {
    label: 'Mass',
    units: [
      unit('g', 1, 'g', 'gram', 'grams'),
      unit('kg', 1000, 'kg'),
      unit('oz', (1000 * KG_PER_POUND) / 16, 'oz', 'ounce', 'ounces'),
      unit('lb', 1000 * KG_PER_POUND, 'lb', 'lbs', 'pound', 'pounds'),
    ],
    low: 0,
    high: 1_000_000,
  },
  saltGPerL: {
    label: 'Dose',
    units: [unit('g/L', 1, 'g/l'), unit('lb/ft³', (1000 * KG_PER_POUND) / L_PER_CUBIC_FOOT, 'lb/ft3', 'lb/ft³', 'lb/cuft', 'lbs/ft3')],
    low: 0,
    high: 1000,
  },
  kvM3PerH: {
    label: 'Valve opening',
    // A Cv of 1 passes a US gallon a minute at 1 psi: 0.865 m³/h at 1 bar.
    units: [unit('m³/h', 1, 'm3/h', 'm³/h', 'kv'), unit('Cv', (60 * L_PER_US_GALLON) / 1000 / Math.sqrt(BAR_PER_PSI), 'cv')],
    low: 0,
    high: 1000,
  },
  equivalents: {
    label: 'Capacity',
    units: [unit('eq', 1, 'eq', 'val'), unit('kgr', (1000 * GRAIN_MG) / 1000 / (CACO3_G_PER_MOL / 2), 'kgr', 'kilograin', 'kilograins')],
    low: 0,
    high: 100_000,
  },
  intensityMWPerCm2: {
    label: 'Intensity',
    units: [unit('mW/cm²', 1, 'mw/cm2', 'mw/cm²'), unit('W/m²', 0.1, 'w/m2', 'w/m²')],
    low: 0,
    high: 10_000,
  },
  surfaceM2: {
    label: 'Surface',
    units: [unit('m²', 1, 'm2', 'm²', 'sqm'), unit('ft²', 0.09290304, 'ft2', 'ft²', 'sqft')],
    low: 0,
    high: 10_000,
  },
  currentA: { label: 'Current', units: [unit('A', 1, 'a', 'amp', 'amps', 'ampere'), unit('mA', 0.001, 'ma')], low: 0, high: 1000 },
  voltageV: { label: 'Voltage', units: [unit('V', 1, 'v', 'volt', 'volts')], low: 0, high: 10_000 },
  gasPpm: { label: 'Carbon dioxide of air', units: [unit('ppm', 1, 'ppm')], low: 0, high: 1_000_000 },
  densityKgPerL: { label: 'Density', units: [unit('kg/L', 1, 'kg/l', 'g/ml')], low: 0.5, high: 3 },
  salinityGPerKg: { label: 'Salinity', units: [unit('g/kg', 1, 'g/kg', 'psu', 'ppt', '‰')], low: 0, high: 300 },
  timeS: {
    label: 'Time',
    units: [
      unit('s', 1, 's', 'sec', 'secs', 'second', 'seconds'),
      unit('min', 60, 'min', 'mins', 'minute', 'minutes'),
      unit('h', 3600, 'h', 'hr', 'hrs', 'hour', 'hours'),
    ],
    low: 0,
    high: 864_000,
  },
  ph: { label: 'pH', units: [unit('', 1, 'ph')], low: 0, high: 14 },
  ratio: { label: 'Ratio', units: [unit(': 1', 1, ':1', 'to1')], low: 0, high: 1000 },
  fraction: { label: 'Share', units: [unit('', 1, 'x'), unit('%', 0.01, '%', 'percent')], low: 0, high: 1 },
  count: { label: 'Number', units: [unit('', 1, 'x')], low: 0, high: 1_000_000 },
} as const satisfies Record<string, DimensionSpec>;

export type Dimension = keyof typeof DIMENSIONS;

/** The spec of a dimension, widened so that callers need not know the literal table. */
export function dimensionSpec(dimension: Dimension): DimensionSpec {
  return DIMENSIONS[dimension];
}

/** Finds a unit of a dimension by its shown symbol. */
export function unitBySymbol(dimension: Dimension, symbol: string): Unit | undefined {
  return dimensionSpec(dimension).units.find((candidate) => candidate.symbol === symbol);
}

/**
 * Converts a value in the given unit to the canonical unit.
 *
 * @param ppmFactor ppm shown per µS/cm by the meter in use; only meter ppm needs it
 */
export function toCanonical(value: number, of: Unit, ppmFactor = 0.5): number {
  if (of.inverse) return of.factor / value;
  if (of.ppm) return value / ppmFactor;
  return value * of.factor + (of.offset ?? 0);
}

/** The reverse of `toCanonical`. */
export function fromCanonical(canonical: number, to: Unit, ppmFactor = 0.5): number {
  if (to.inverse) return to.factor / canonical;
  if (to.ppm) return canonical * ppmFactor;
  return (canonical - (to.offset ?? 0)) / to.factor;
}
