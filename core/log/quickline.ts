import { NOTHING_SAID, type Instrument, type Probe, type Reading } from '../file';
import { parseQuantity, plainText, readNumber, THIN, unitBySpelling, type Dimension } from '../quantity';
import { meterEntry, shownUnitOf } from './meterEntry';
import { momentText, readWhen, type LocalClock } from './when';

/** What a stretch of the line was taken for. */
export interface QuickToken {
  readonly start: number;
  readonly end: number;
  readonly text: string;
  readonly kind: 'when' | 'skipped' | 'probe' | 'pressure' | 'temperature' | 'flows' | 'meter' | 'note' | 'error';
  /** Which probe, counted from the tap. */
  readonly probe?: number;
  /** The token in words, or what is wrong with it. */
  readonly says: string;
}

export type QuickReading = Omit<Reading, 'id' | 'systemId' | 'at'>;
/** What a line fills in figure by figure. */
type Draft = { -readonly [K in keyof Omit<QuickReading, keyof typeof NOTHING_SAID>]: QuickReading[K] };

export interface QuickLine {
  /** The instant at its head; null where none is given. */
  readonly at: string | null;
  readonly tokens: readonly QuickToken[];
  readonly reading: QuickReading;
  /** The whole reading spelled out. */
  readonly spelled: string;
  /** First thing that stops it from being saved; null when it can be. */
  readonly problem: string | null;
}

/** An amount as a jug is read: 410, 1.5, 1 1/4, 1-3/8, 1/4, 1⅜. */
const AMOUNT = '(?:\\d+[ -]\\d+\\/\\d+|\\d+\\/\\d+|\\d[\\d.,]*[⅛¼⅓⅜½⅝⅔¾⅞]?|[⅛¼⅓⅜½⅝⅔¾⅞])';
const JUG = `(${AMOUNT}\\s*(?:cups?|ml|l|fl\\.? ?oz|oz|pints?|pt|quarts?|qt|gal)\\b)`;
/** Two jugs, each with its unit: 1 cup/4 cups. */
const JUGS = `${JUG}\\s*\\/\\s*${JUG}`;
/** A number, perhaps a second one after a slash, perhaps a unit. */
/** One of two jugs that was not filled: 410/-ml, -/1500ml. */
const HALF = '(?:\\d[\\d.,]*\\s*\\/\\s*[-–—]|[-–—]\\s*\\/\\s*\\d[\\d.,]*)(?:\\s*[a-z]+)?';
const NUMBERS = '[+-]?\\d[\\d.,]*(?:\\s*\\/\\s*\\d[\\d.,]*)?(?:\\s*(?:°\\s*[CF]\\b|[a-zµμ³][a-zµμ³/·]*))?';
/** In the place of a probe that was not read. */
const NOT_READ = '(?<=\\s|^)[-–—](?=\\s|$)';
const CHUNK = new RegExp(`${JUGS}|${HALF}|${NUMBERS}|${NOT_READ}`, 'giu');
const ONLY_DASH = /^[-–—]$/;
const ONLY_JUGS = new RegExp(`^${JUGS}$`, 'iu');

/** What a meter may show. */
const METER_DIMENSIONS: readonly Dimension[] = ['conductivityUScm', 'salinityGPerKg', 'concentrationMgL'];
const DIMENSIONS_TRIED: readonly Dimension[] = [...METER_DIMENSIONS, 'pressureBar', 'temperatureC', 'volumeL'];

/** A flow typed as a volume is a volume a minute, as the jugs were filled. */
const MINUTES_PER_HOUR = 60;

/**
 * Reads a line such as `311 10 0 59psi 11C 410/1500ml`.
 *
 * A day at its head says when it was read. Plain numbers are the probes in order from the tap, a dash one that was not
 * read; a pair with a slash is product and waste a minute; a
 * number with a unit is what its unit says; one large volume alone is the product meter's total. Words are the note. Nothing typed is
 * dropped: what is not understood stays in the line, marked, with the reason.
 */
export function parseQuickLine(
  line: string,
  probes: readonly Probe[],
  instruments: readonly Instrument[],
  clock: LocalClock | null = null,
): QuickLine {
  const draft = {
    values: [] as Reading['values'],
    pressureBar: null as number | null,
    temperatureC: null as number | null,
    productLPerH: null as number | null,
    wasteLPerH: null as number | null,
    meterL: null as number | null,
  };
  const tokens: QuickToken[] = [];
  const place = { next: 0 };
  let end = 0;
  const words: string[] = [];
  const takeWords = (from: number, to: number): void => {
    const text = line.slice(from, to);
    const trimmed = text.trim();
    if (trimmed === '') return;
    const start = from + text.indexOf(trimmed);
    tokens.push({ start, end: start + trimmed.length, text: trimmed, kind: 'note', says: 'note' });
    words.push(trimmed);
  };
  const when = clock && readWhen(line, clock);
  if (when) {
    end = when.length;
    const text = line.slice(0, end).trim();
    const start = line.indexOf(text);
    const says = when.problem ?? momentText(when.moment, when.timed, clock.now);
    tokens.push({ start, end: start + text.length, text, kind: when.problem ? 'error' : 'when', says });
  }
  for (const match of line.matchAll(CHUNK)) {
    if (match.index < end) continue;
    const start = match.index;
    let text = match[0].trimEnd();
    // "10 changed filter": a word behind a number that is no unit belongs to the note.
    const word = match[1] ? null : /\s+([a-zµμ³].*)$/iu.exec(text);
    if (word && !knownUnit(word[1]!)) text = text.slice(0, word.index);
    takeWords(end, start);
    end = start + text.length;
    tokens.push({ start, end, text, ...readToken(text, probes, instruments, draft, place) });
  }
  takeWords(end, line.length);
  const reading: QuickReading = { ...draft, ...NOTHING_SAID, note: words.join(' ') };
  const error = tokens.find((token) => token.kind === 'error');
  const measured = tokens.some((token) => !['note', 'error', 'when', 'skipped'].includes(token.kind));
  return {
    at: when && !when.problem ? clock.instantOf(when.moment) : null,
    tokens,
    reading,
    spelled: tokens
      .filter((token) => token.kind !== 'error')
      .map((token) => (token.kind === 'note' ? `“${token.text}”` : token.says))
      .join(' · '),
    problem: error ? error.says : measured ? null : 'Type at least one number, such as 311 10 0.',
  };
}

const knownUnit = (spelling: string): boolean =>
  DIMENSIONS_TRIED.some((dimension) => unitBySpelling(dimension, spelling) !== undefined) ||
  unitBySpelling('flowLPerH', spelling) !== undefined;

/** Which probe the next plain number belongs to. */
interface Place {
  next: number;
}
type TokenReading = Pick<QuickToken, 'kind' | 'says' | 'probe'>;

function readToken(text: string, probes: readonly Probe[], instruments: readonly Instrument[], draft: Draft, place: Place): TokenReading {
  if (ONLY_DASH.test(text)) return skipped(probes, place);
  const jugs = ONLY_JUGS.exec(text);
  if (jugs) return readFlows(jugs[1]!, jugs[2]!, text, draft);
  if (/\d\s*\/\s*\d/.test(text)) return readPair(text, draft);
  if (/[-–—]\s*\/|\/\s*[-–—]/.test(text)) return readHalf(text, draft);
  const number = readNumber(plainText(text));
  const unit = number.kind === 'number' ? number.rest.trim() : '';
  if (number.kind !== 'number') return problem(`“${text}” is not a number.`);
  if (unit === '' || METER_DIMENSIONS.some((dimension) => unitBySpelling(dimension, unit)))
    return readProbe(text, probes, instruments, draft, place);
  if (unitBySpelling('pressureBar', unit)) {
    return once(draft, 'pressureBar', text, 'pressureBar', 'Pressure', (said) => ({ kind: 'pressure', says: said }));
  }
  if (unitBySpelling('temperatureC', unit)) {
    return once(draft, 'temperatureC', text, 'temperatureC', 'Temperature', (said) => ({ kind: 'temperature', says: said }));
  }
  if (unitBySpelling('volumeL', unit)) {
    return once(draft, 'meterL', text, 'volumeL', 'Product meter', (said) => ({ kind: 'meter', says: `product meter ${said}` }));
  }
  if (unitBySpelling('flowLPerH', unit)) {
    const key = draft.productLPerH === null ? 'productLPerH' : 'wasteLPerH';
    const label = key === 'productLPerH' ? 'Product' : 'Waste';
    return once(draft, key, text, 'flowLPerH', label, (said) => ({ kind: 'flows', says: `${label.toLowerCase()} ${said}` }));
  }
  return problem(`“${text}”: ${unit} is not a unit known here. Use ppm, µS, psi, bar, C, F, or 410/1500ml for product and waste a minute.`);
}

const problem = (says: string): TokenReading => ({ kind: 'error', says });

/** Reads a quantity into a place of the draft that may be filled once. */
function once(
  draft: Draft,
  key: 'pressureBar' | 'temperatureC' | 'meterL' | 'productLPerH' | 'wasteLPerH',
  text: string,
  dimension: Dimension,
  label: string,
  made: (said: string) => TokenReading,
): TokenReading {
  if (draft[key] !== null) return problem(`${label} is given twice: “${text}”.`);
  const parsed = parseQuantity(text, dimension, { field: label });
  if (!parsed.ok) return problem(parsed.error.message);
  draft[key] = parsed.value.value;
  return made(`${parsed.value.typedValue}${THIN}${parsed.value.unit}`);
}

/** A probe that was passed over. */
function skipped(probes: readonly Probe[], place: Place): TokenReading {
  const probe = probes[place.next];
  place.next += 1;
  return probe ? { kind: 'skipped', says: `${probe.name.toLowerCase()} not read` } : problem('There is no probe left to pass over.');
}

function readProbe(text: string, probes: readonly Probe[], instruments: readonly Instrument[], draft: Draft, place: Place): TokenReading {
  const index = place.next;
  const probe = probes[index];
  const instrument = instruments.find((candidate) => candidate.id === probe?.instrumentId);
  if (!probe || !instrument) {
    return problem(
      `“${text}” is one number too many: this system has ${probes.length} ${probes.length === 1 ? 'probe' : 'probes'}. Give other numbers a unit.`,
    );
  }
  const entry = meterEntry(text, instrument, probe.name);
  if (!entry.ok) return problem(entry.error.message);
  const shown = entry.value;
  place.next += 1;
  draft.values = [...draft.values, { probeId: probe.id, instrumentId: instrument.id, shown }];
  return {
    kind: 'probe',
    probe: index,
    says: `${probe.name.toLowerCase()} ${Number(shown.toPrecision(4))}${THIN}${shownUnitOf(instrument)}`,
  };
}

/** Two numbers that share one unit: 410/1500ml. */
function readPair(text: string, draft: Draft): TokenReading {
  const [first = '', second = ''] = text.split('/').map((part) => part.trim());
  const secondNumber = readNumber(plainText(second));
  const unit = secondNumber.kind === 'number' ? secondNumber.rest.trim() : '';
  return readFlows(unit === '' ? first : `${first} ${unit}`, text.slice(text.indexOf('/') + 1), text, draft);
}

/** One jug of the two: 410/-ml. */
function readHalf(text: string, draft: Draft): TokenReading {
  const [first = '', second = ''] = text.split('/').map((part) => part.trim());
  const isProduct = /\d/.test(first);
  const unit = /[a-z]+$/i.exec(second)?.[0] ?? 'mL';
  const key = isProduct ? 'productLPerH' : 'wasteLPerH';
  const label = isProduct ? 'product' : 'waste';
  if (draft[key] !== null) return problem(`The ${label} is given twice: “${text}”.`);
  const read = parseQuantity(`${isProduct ? first : second.replace(/[a-z]+$/i, '')} ${unit}`, 'volumeL', { field: `The ${label}` });
  if (!read.ok) return problem(read.error.message);
  draft[key] = read.value.value * MINUTES_PER_HOUR;
  return { kind: 'flows', says: `${label} ${read.value.typedValue}${THIN}${read.value.unit}/min` };
}

/** Product and waste of the same minute. */
function readFlows(productText: string, wasteText: string, text: string, draft: Draft): TokenReading {
  if (draft.productLPerH !== null) return problem(`Product and waste are given twice: “${text}”.`);
  const [product, waste] = [productText, wasteText].map((part) =>
    parseQuantity(part, 'volumeL', { field: 'Product and waste', defaultUnit: 'mL' }),
  ) as [ReturnType<typeof parseQuantity>, ReturnType<typeof parseQuantity>];
  if (!product.ok) return problem(product.error.message);
  if (!waste.ok) return problem(waste.error.message);
  draft.productLPerH = product.value.value * MINUTES_PER_HOUR;
  draft.wasteLPerH = waste.value.value * MINUTES_PER_HOUR;
  const unit = product.value.unit === waste.value.unit ? '' : `${THIN}${product.value.unit}`;
  return {
    kind: 'flows',
    says: `product ${product.value.typedValue}${unit}, waste ${waste.value.typedValue}${THIN}${waste.value.unit}/min`,
  };
}
