/** Reading the number part of what a person typed: decimal commas, fractions, thousands. */

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '⅓': '1/3',
  '⅔': '2/3',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅕': '1/5',
};

/** Replaces typographic minus, spaces and fraction signs by plain ones. */
export function plainText(text: string): string {
  return text
    .replace(/[\u00a0\u2009\u202f]/g, ' ')
    .replace(/\u2212/g, '-')
    .replace(/[½⅓⅔¼¾⅛⅜⅝⅞⅕]/g, (sign) => ` ${VULGAR[sign]}`)
    .replace(/\s+/g, ' ')
    .trim();
}

/** The longest start of a text that looks like a number: sign, digits with separators, exponent, fraction. */
const NUMBER_START = /^([+-]?)\s*(?:(\d+)(?:\s+|-)(\d+)\/(\d+)|(\d+)\/(\d+)|((?:\d[\d.,]*\d|\d)|[.,]\d+)(e[+-]?\d+)?)/i;

export type NumberReading =
  | { readonly kind: 'number'; readonly value: number; readonly rest: string }
  | { readonly kind: 'ambiguous'; readonly typed: string; readonly readings: readonly [string, string] }
  | { readonly kind: 'none' };

/**
 * Reads a number at the start of a text.
 *
 * A lone comma or point followed by exactly three digits ("1,500") is two different numbers in two countries: we refuse
 * to guess. After a point only where the last of them is 0 ("35.000"): nothing shown here for editing ends so, and a
 * meter's "1.234" is what it says.
 */
export function readNumber(text: string): NumberReading {
  const match = NUMBER_START.exec(text);
  if (!match) return { kind: 'none' };
  const [whole, sign, mixedWhole, mixedTop, mixedBottom, top, bottom, digits, exponent] = match;
  const rest = text.slice(whole.length);
  const signed = (magnitude: number): NumberReading =>
    Number.isFinite(magnitude)
      ? { kind: 'number', value: sign === '-' && magnitude !== 0 ? -magnitude : magnitude, rest }
      : { kind: 'none' };
  if (mixedWhole !== undefined) return signed(Number(mixedWhole) + Number(mixedTop) / Number(mixedBottom));
  if (top !== undefined) return signed(Number(top) / Number(bottom));
  const separated = readSeparators(digits ?? '');
  if (typeof separated !== 'string') return { kind: 'ambiguous', typed: digits ?? '', readings: separated };
  if (separated === '') return { kind: 'none' };
  return signed(Number(separated + (exponent ?? '')));
}

/** Turns "1.234,5" and "1,234.5" into "1234.5"; returns both readings when there are two, '' when none. */
function readSeparators(digits: string): string | readonly [string, string] {
  const commas = digits.split(',').length - 1;
  const points = digits.split('.').length - 1;
  if (commas === 0 && points === 1 && /^[1-9]\d{0,2}\.\d{2}0$/.test(digits))
    return [digits.replace('.', ''), digits.replace(/0+$/, '').replace(/\.$/, '')];
  if (commas === 0 && points <= 1) return digits;
  if (commas === 1 && points === 0) {
    if (/^[1-9]\d{0,2},\d{3}$/.test(digits)) return [digits.replace(',', ''), digits.replace(',', '.')];
    return digits.replace(',', '.');
  }
  if (/^\d{1,3}(,\d{3})+(\.\d+)?$/.test(digits)) return digits.replaceAll(',', '');
  if (/^\d{1,3}(\.\d{3})+(,\d+)?$/.test(digits)) return digits.replaceAll('.', '').replace(',', '.');
  return '';
}
