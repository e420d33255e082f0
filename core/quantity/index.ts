export { dayAndYear, dayOfNear, dayWords, seasonWords } from './days';
export {
  THIN,
  grouped,
  formatAbout,
  formatForEditing,
  formatIn,
  formatQuantity,
  formatStrength,
  formatWithDoubt,
  percent,
  roundForReading,
  withDoubt,
} from './format';
export { unitDoubt, type UnitDoubt, type Usual } from './meant';
export { plainText, readNumber } from './number';
export { fail, firstError, ok, outOfRange, type InputError, type Outcome } from './outcome';
export { parseQuantity, unitBySpelling } from './parse';
export {
  GALLON_UNITS,
  METRIC_UNITS,
  UNIT_CHOICES,
  UNIT_PRESETS,
  hintUnit,
  presetOf,
  shownUnit,
  withPreset,
  type HardnessUnit,
  type Measured,
  type UnitPreference,
  type UnitPresetKey,
} from './preference';
export { between, boundsOf, day, id, longest, maybe, measureOf, measured, name } from './schema';
export {
  BAR_PER_ATM,
  BAR_PER_PSI,
  CACO3_G_PER_MOL,
  KG_PER_POUND,
  L_PER_US_GALLON,
  MG_L_PER_DH,
  PPM_PER_USCM,
  dimensionSpec,
  fromCanonical,
  toCanonical,
  unitBySymbol,
  DIMENSIONS,
  type Dimension,
} from './units';
export {
  DAY_MS,
  DAYS_PER_MONTH,
  DAYS_PER_YEAR,
  costUnit,
  inSentence,
  listed,
  moneyText,
  ordinal,
  words,
  atStart,
  minutesText,
} from './words';
