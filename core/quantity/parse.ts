import { plainText, readNumber } from './number';
import { fail, ok, type Outcome } from './outcome';
import { dimensionSpec, toCanonical, unitBySymbol, type Dimension, type Unit } from './units';

export interface ParseOptions {
  /** Name of the field for the error; defaults to the dimension's label. */
  readonly field?: string;
  /** Symbol of the unit taken when none is typed; defaults to the canonical one. */
  readonly defaultUnit?: string;
  /** ppm per µS/cm of the meter in use. */
  readonly ppmFactor?: number;
  /** Narrower limits than the dimension's own, in canonical units. */
  readonly low?: number;
  readonly high?: number;
}

/** A typed quantity: its canonical value, and what was typed. */
export interface ParsedQuantity {
  readonly value: number;
  readonly unit: string;
  readonly typedValue: number;
}

const normalise = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[\s.]/g, '')
    .replace(/l\^-1$/, '/l');

/** Finds the unit a person meant by a spelling, or undefined. */
export function unitBySpelling(dimension: Dimension, spelling: string): Unit | undefined {
  const wanted = normalise(spelling);
  return dimensionSpec(dimension).units.find((candidate) => candidate.spellings.some((s) => normalise(s) === wanted));
}

/** "35 000", as figures are shown here, as 35000. */
const withoutGroups = (text: string): string => {
  const grouped = /^[+-]?\d{1,3}(?: \d{3})+(?![\d/])/.exec(text);
  return grouped ? grouped[0].replaceAll(' ', '') + text.slice(grouped[0].length) : text;
};

/** The unit symbols of a dimension, for a message. */
function unitList(dimension: Dimension): string {
  const symbols = dimensionSpec(dimension)
    .units.map((u) => u.symbol)
    .filter((symbol) => symbol !== '');
  return symbols.length === 0 ? 'a plain number' : symbols.join(', ');
}

/** A limit in the unit typed, short enough for a message. */
const shortNumber = (value: number): string => String(Number(value.toPrecision(4)));

/**
 * Reads what a person typed as a quantity: "61 psi", "4,2 bar", "1 1/4 cup", "7 dH", "12 gpg", "55 F", "330".
 *
 * @returns the canonical value, or an error naming field, value and what is accepted; never throws, never NaN
 * @example parseQuantity('60 psi', 'pressureBar') // { ok: true, value: { value: 4.1368…, unit: 'psi', typedValue: 60 } }
 */
export function parseQuantity(text: string, dimension: Dimension, options: ParseOptions = {}): Outcome<ParsedQuantity> {
  const spec = dimensionSpec(dimension);
  const field = options.field ?? spec.label;
  const typed = plainText(text);
  const example = unitList(dimension);
  if (typed === '') return fail(field, text, `a number with or without a unit (${example})`, `${field} is empty.`);

  const read = readNumber(withoutGroups(typed));
  if (read.kind === 'ambiguous') {
    const [thousands, decimal] = read.readings;
    return fail(
      field,
      text,
      `${thousands} or ${decimal}`,
      `${field}: “${read.typed}” can mean ${thousands} or ${decimal}. Type one of them.`,
    );
  }
  if (read.kind === 'none') {
    return fail(field, text, `a number, then ${example}`, `${field}: “${typed}” does not begin with a number.`);
  }

  const spelling = read.rest.trim();
  const chosen =
    spelling === ''
      ? (unitBySymbol(dimension, options.defaultUnit ?? spec.units[0].symbol) ?? spec.units[0])
      : unitBySpelling(dimension, spelling);
  if (!chosen) return fail(field, text, example, `${field}: “${spelling}” is not a unit known here. Accepted: ${example}.`);

  const value = toCanonical(read.value, chosen, options.ppmFactor);
  const low = options.low ?? spec.low;
  const high = options.high ?? spec.high;
  // Only a resistivity of 0 gets here without being finite: it has no conductivity.
  if (!Number.isFinite(value) || value < low || value > high) {
    const accepted = acceptedRange(low, high, chosen, options.ppmFactor);
    return fail(field, text, accepted, `${field} is ${typed}; accepted is ${accepted}.`);
  }
  return ok({ value, unit: chosen.symbol, typedValue: read.value });
}

function acceptedRange(low: number, high: number, chosen: Unit, ppmFactor = 0.5): string {
  if (chosen.inverse) return `${shortNumber(chosen.factor / high)} ${chosen.symbol} and more`;
  const back = (canonical: number): number => (chosen.ppm ? canonical * ppmFactor : (canonical - (chosen.offset ?? 0)) / chosen.factor);
  return `${shortNumber(back(low))} to ${shortNumber(back(high))} ${chosen.symbol}`.trim();
}
