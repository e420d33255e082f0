import { furtherGauges, NOTHING_SAID, type Gauge, type Instrument, type Reading, type Train } from '../file';
import { parseQuantity, plainText, readNumber, THIN, unitBySpelling, UNIT_CHOICES, type Dimension, type UnitPreference } from '../quantity';
import { meterEntry, shownUnitOf } from './meterEntry';
import { momentText, readWhen, type LocalClock } from './when';

/** What a stretch of the line was taken for. */
export interface QuickToken {
  readonly start: number;
  readonly end: number;
  readonly text: string;
  readonly kind: 'when' | 'skipped' | 'probe' | 'pressure' | 'gauge' | 'temperature' | 'flows' | 'meter' | 'note' | 'error';
  /** Which probe, in the system's order. */
  readonly probe?: number;
  /** Which further gauge or flow meter. */
  readonly gauge?: string;
  /** The token in words, or what is wrong with it. */
  readonly says: string;
}

export type QuickReading = Omit<Reading, 'id' | 'systemId' | 'at'>;
/** What a line fills in figure by figure. */
type Draft = { -readonly [K in keyof Omit<QuickReading, Exclude<keyof typeof NOTHING_SAID, 'also'>>]: QuickReading[K] };

/** What a line is read by: the probes, gauges and flow meters of a system, each in its own order, and their meters. */
export interface ReadBy {
  readonly train: Pick<Train, 'probes' | 'gauges'>;
  readonly instruments: readonly Instrument[];
}

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
/** In the place of a probe that was not read, or with its unit of a gauge or a flow meter. */
const NOT_READ = '(?<=\\s|^)[-–—](?:psi|bar|kpa|ml\\/min|l\\/min|l\\/h|gpm|gpd|gal\\/(?:min|h|day))?(?=\\s|$)';
const CHUNK = new RegExp(`${JUGS}|${HALF}|${NUMBERS}|${NOT_READ}`, 'giu');
const ONLY_DASH = /^[-–—](?:[a-z].*)?$/iu;
const ONLY_JUGS = new RegExp(`^${JUGS}$`, 'iu');

/** What a meter may show. */
const METER_DIMENSIONS: readonly Dimension[] = ['conductivityUScm', 'salinityGPerKg', 'concentrationMgL'];
const DIMENSIONS_TRIED: readonly Dimension[] = [...METER_DIMENSIONS, 'pressureBar', 'temperatureC', 'volumeL'];

/** A flow typed as a volume is a volume a minute, as the jugs were filled. */
const MINUTES_PER_HOUR = 60;

/**
 * Reads a line such as `311 10 0 59psi 11C 410/1500ml`.
 *
 * A day at its head says when it was read. Plain numbers are the system's probes in its own order, a dash one that was not
 * read; a pair with a slash is product and waste a minute; a number with a unit is what its unit says, a second pressure
 * that of the next gauge, a third flow that of the next flow meter; one large volume alone is the product meter's total.
 * Words are the note. Nothing typed is dropped: what is not understood stays in the line, marked, with the reason.
 */
export function parseQuickLine(line: string, by: ReadBy, clock: LocalClock | null = null): QuickLine {
  const draft: Draft = {
    values: [],
    pressureBar: null,
    temperatureC: null,
    productLPerH: null,
    wasteLPerH: null,
    meterL: null,
    also: [],
  };
  const tokens: QuickToken[] = [];
  const place: Place = { probe: 0, pressure: 0, flow: 0 };
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
    tokens.push({ start, end, text, ...readToken(text, by, draft, place) });
  }
  takeWords(end, line.length);
  const reading: QuickReading = { ...NOTHING_SAID, ...draft, note: words.join(' ') };
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

/** Which probe the next plain number belongs to, which gauge the next pressure, which meter the next flow. */
interface Place {
  probe: number;
  pressure: number;
  flow: number;
}
type TokenReading = Pick<QuickToken, 'kind' | 'says' | 'probe' | 'gauge'>;

function readToken(text: string, by: ReadBy, draft: Draft, place: Place): TokenReading {
  const isPair = /[\d-–—]\s*\/\s*[\d-–—]/.test(text) && /\d/.test(text);
  if (ONLY_DASH.test(text) && !isPair) return skipped(text, by, place);
  const jugs = ONLY_JUGS.exec(text);
  if (jugs || isPair) place.flow = 2;
  if (jugs) return readFlows(jugs[1]!, jugs[2]!, text, draft);
  if (/\d\s*\/\s*\d/.test(text)) return readPair(text, draft);
  if (isPair) return readHalf(text, draft);
  const number = readNumber(plainText(text));
  const unit = number.kind === 'number' ? number.rest.trim() : '';
  if (number.kind !== 'number') return problem(`“${text}” is not a number.`);
  if (unit === '' || METER_DIMENSIONS.some((dimension) => unitBySpelling(dimension, unit))) return readProbe(text, by, draft, place);
  if (unitBySpelling('pressureBar', unit)) return readPressure(text, by, draft, place);
  if (unitBySpelling('temperatureC', unit)) {
    return once(draft, 'temperatureC', text, 'temperatureC', 'Temperature', (said) => ({ kind: 'temperature', says: said }));
  }
  if (unitBySpelling('volumeL', unit)) {
    return once(draft, 'meterL', text, 'volumeL', 'Product meter', (said) => ({ kind: 'meter', says: `product meter ${said}` }));
  }
  if (unitBySpelling('flowLPerH', unit)) return readFlow(text, by, draft, place);
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
  // A meter that counts down goes below nought.
  const parsed = parseQuantity(text, dimension, { field: label, ...(key === 'meterL' ? { low: -1e9 } : {}) });
  if (!parsed.ok) return problem(parsed.error.message);
  draft[key] = parsed.value.value;
  return made(`${parsed.value.typedValue}${THIN}${parsed.value.unit}`);
}

/** A figure of a further gauge or flow meter. */
function readGauge(
  text: string,
  gauge: Gauge | undefined,
  dimension: 'pressureBar' | 'flowLPerH',
  label: string,
  draft: Draft,
): TokenReading {
  if (!gauge)
    return problem(
      `${label} is given twice: “${text}”. Place another ${dimension === 'flowLPerH' ? 'flow meter' : 'gauge'} on Train first.`,
    );
  const parsed = parseQuantity(text, dimension, { field: gauge.name });
  if (!parsed.ok) return problem(parsed.error.message);
  draft.also = [...draft.also, { gaugeId: gauge.id, value: parsed.value.value }];
  return { kind: 'gauge', gauge: gauge.id, says: `${gauge.name.toLowerCase()} ${parsed.value.typedValue}${THIN}${parsed.value.unit}` };
}

/** The first pressure is the gauge's that every system has; those after it are of the further ones, in their order. */
function readPressure(text: string, by: ReadBy, draft: Draft, place: Place): TokenReading {
  const at = place.pressure++;
  if (at === 0) return once(draft, 'pressureBar', text, 'pressureBar', 'Pressure', (said) => ({ kind: 'pressure', says: said }));
  return readGauge(text, furtherGauges(by.train, false)[at - 1], 'pressureBar', 'Pressure', draft);
}

/** Product, then waste, then the further flow meters in their order. */
function readFlow(text: string, by: ReadBy, draft: Draft, place: Place): TokenReading {
  const at = place.flow++;
  if (at > 1) return readGauge(text, furtherGauges(by.train, true)[at - 2], 'flowLPerH', 'A flow', draft);
  const [key, label] = at === 0 ? (['productLPerH', 'Product'] as const) : (['wasteLPerH', 'Waste'] as const);
  return once(draft, key, text, 'flowLPerH', label, (said) => ({ kind: 'flows', says: `${label.toLowerCase()} ${said}` }));
}

/** A probe, or with its unit a gauge or a flow meter, that was passed over. */
function skipped(text: string, { train }: ReadBy, place: Place): TokenReading {
  const unit = text.slice(1).trim();
  if (unit !== '') {
    if (unitBySpelling('pressureBar', unit)) place.pressure += 1;
    else place.flow += 1;
    return { kind: 'skipped', says: 'not read' };
  }
  const probe = train.probes[place.probe];
  place.probe += 1;
  return probe ? { kind: 'skipped', says: `${probe.name.toLowerCase()} not read` } : problem('There is no probe left to pass over.');
}

function readProbe(text: string, { train: { probes }, instruments }: ReadBy, draft: Draft, place: Place): TokenReading {
  const index = place.probe;
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
  place.probe += 1;
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

/** Units a line was typed in, where they are others than the system's: what is asked about a figure is asked in its own. */
export function typedUnits({ tokens }: Pick<QuickLine, 'tokens'>, units: UnitPreference): UnitPreference {
  let typed = units;
  for (const { kind, text } of tokens) {
    const spelling = /[°a-zµμ³/]+$/i.exec(text.trim())?.[0] ?? '';
    if (kind === 'pressure') typed = { ...typed, pressure: symbolOf('pressureBar', spelling, UNIT_CHOICES.pressure) ?? typed.pressure };
    if (kind === 'temperature')
      typed = { ...typed, temperature: symbolOf('temperatureC', spelling, UNIT_CHOICES.temperature) ?? typed.temperature };
    if (kind === 'meter') typed = { ...typed, volume: symbolOf('volumeL', spelling, UNIT_CHOICES.volume) ?? typed.volume };
    if (kind === 'flows') {
      // Jugs are read for a minute.
      const isJug = unitBySpelling('volumeL', spelling) !== undefined;
      typed = { ...typed, flow: symbolOf('flowLPerH', isJug ? `${spelling}/min` : spelling, UNIT_CHOICES.flow) ?? typed.flow };
    }
  }
  return typed;
}

function symbolOf<S extends string>(dimension: Dimension, spelling: string, choices: readonly S[]): S | null {
  const symbol = unitBySpelling(dimension, spelling)?.symbol;
  return choices.find((one) => one === symbol) ?? null;
}
