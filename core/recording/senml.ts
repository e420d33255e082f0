import { z } from 'zod';
import { FIRST_YEAR, type Instrument, type Sensor } from '../file';
import { DAY_MS, fail, ok, type Outcome } from '../quantity';
import { readingFromEc25 } from '../water';

/** One figure that was sent: under which name, in which unit, when and how much. */
export interface Heard {
  readonly name: string;
  readonly unit: string | null;
  readonly atMs: number;
  readonly value: number | null;
  /** What the figure has added up to over time, in its unit times seconds. */
  readonly sum: number | null;
}

const number = z.number().refine(Number.isFinite).optional();
/** A record of RFC 8428, section 4. */
const recordSchema = z.looseObject({
  bn: z.string().max(200).optional(),
  bt: number,
  bu: z.string().max(40).optional(),
  bv: number,
  bs: number,
  bver: number,
  n: z.string().max(200).optional(),
  u: z.string().max(40).optional(),
  t: number,
  v: number,
  s: number,
  vs: z.string().optional(),
  vb: z.boolean().optional(),
  vd: z.string().optional(),
});
type Base = Pick<z.infer<typeof recordSchema>, 'bn' | 'bt' | 'bu' | 'bv' | 'bs'>;

/** Times below this are counted from now, s (RFC 8428, 4.5.3). */
const RELATIVE_BELOW_S = 2 ** 28;
/** Versions that are understood: the plain one and those before it, and 26, which allows secondary units (RFC 9100). */
const understands = (version: number): boolean => (version >= 1 && version <= 10) || version === 26;
/** Names as RFC 8428, 4.5.1 has them. */
const NAME = /^[A-Za-z0-9][A-Za-z0-9\-:./_]*$/;

/** A figure that was sent with a time nothing can have been read at. */
export interface Mistimed {
  readonly name: string;
  /** Its time as it was sent, s. */
  readonly seconds: number;
  readonly says: string;
}
export interface Pack {
  readonly heard: readonly Heard[];
  readonly mistimed: readonly Mistimed[];
}

const FIRST_MS = Date.UTC(FIRST_YEAR, 0, 1);
/** A meter's clock may be ahead of this device's by so much, ms (product assumption): either may be wrong. */
const AHEAD_MS = 31 * DAY_MS;
/** What a clock may have counted in where seconds are asked for. */
const CLOCKS = [
  ['milliseconds', 1e3],
  ['microseconds', 1e6],
  ['nanoseconds', 1e9],
] as const;

/** The instant a time stands for, ms: small ones are counted from now. */
const instantOf = (seconds: number, nowMs: number): number => (seconds < RELATIVE_BELOW_S ? nowMs + 1000 * seconds : 1000 * seconds);

/** What is wrong with a time, s; null of one that can be. */
function whyMistimed(name: string, seconds: number, nowMs: number): string | null {
  const isLikely = (ms: number): boolean => ms >= FIRST_MS && ms <= nowMs + AHEAD_MS;
  if (isLikely(instantOf(seconds, nowMs))) return null;
  const counted = CLOCKS.find(([, parts]) => isLikely((1000 * seconds) / parts));
  const why = counted
    ? `counted in ${counted[0]}`
    : 1000 * seconds > nowMs
      ? 'ahead of this device’s clock by more than a month'
      : `before ${FIRST_YEAR}`;
  return `“${name}” sends a time of ${seconds}: ${why}. Accepted are seconds since 1970. Its figures are left out.`;
}

/**
 * Reads a pack of sensor figures (SenML in JSON, RFC 8428): names, units, times and values with what stands at the head
 * of the pack filled in. Texts, switches and bytes are left out: they are no figures. A figure whose time cannot be is
 * left out and named; the rest of its pack stays.
 *
 * @param data what `JSON.parse` gave
 * @param nowMs the time that relative ones count from
 * @returns an error that names the record and what is accepted
 */
export function readSenml(data: unknown, nowMs: number): Outcome<Pack> {
  const wrong = (field: string, value: unknown, accepted: string): ReturnType<typeof fail> => {
    const shown = typeof value === 'string' || typeof value === 'number' ? value : value === undefined ? null : typeof value;
    return fail(field, shown, accepted, `In the sensor figures ${field} is ${shown ?? 'missing'}; accepted is ${accepted}.`);
  };
  if (!Array.isArray(data)) return wrong('the pack', data, 'a list of records (RFC 8428)');
  let base: Base = {};
  const heard: Heard[] = [];
  const mistimed = new Map<string, Mistimed>();
  for (const [i, one] of data.entries()) {
    const parsed = recordSchema.safeParse(one);
    if (!parsed.success) {
      const { path, message } = parsed.error.issues[0]!;
      return wrong(
        `record ${i + 1}${path.length > 0 ? `, “${path.join('.')}”` : ''}`,
        path.length > 0 ? Object(one)[path[0]!] : one,
        message,
      );
    }
    const record = parsed.data;
    const must = Object.keys(record).find((key) => key.endsWith('_'));
    if (must) return wrong(`record ${i + 1}, “${must}”`, 'a field that must be understood', 'a pack without it');
    if (record.bver !== undefined && !understands(record.bver)) return wrong(`record ${i + 1}, “bver”`, record.bver, 'up to 10, or 26');
    base = { ...base, ...given(record) };
    const { v, s, vs, vb, vd } = record;
    if ([v, s, vs, vb, vd].every((value) => value === undefined)) continue;
    const name = `${base.bn ?? ''}${record.n ?? ''}`;
    if (!NAME.test(name))
      return wrong(`record ${i + 1}, the name`, name || undefined, 'letters, digits and - : . / _, a letter or digit first');
    const seconds = (base.bt ?? 0) + (record.t ?? 0);
    if (v === undefined && s === undefined) continue;
    const says = whyMistimed(name, seconds, nowMs);
    if (says !== null) {
      mistimed.set(name, { name, seconds, says });
      continue;
    }
    heard.push({
      name,
      unit: record.u ?? base.bu ?? null,
      atMs: Math.round(instantOf(seconds, nowMs)),
      value: v === undefined ? (base.bv ?? null) : (base.bv ?? 0) + v,
      sum: s === undefined && base.bs === undefined ? null : (base.bs ?? 0) + (s ?? 0),
    });
  }
  return ok({ heard, mistimed: [...mistimed.values()] });
}

/** The base fields that a record brings. */
function given({ bn, bt, bu, bv, bs }: Base): Base {
  return Object.fromEntries(Object.entries({ bn, bt, bu, bv, bs }).filter(([, value]) => value !== undefined));
}

type Quantity = 'conductivity' | 'ppm' | 'temperature' | 'pressure' | 'flow' | 'volume';
/**
 * Units of the registry of RFC 8428 and RFC 8798 (recalled) that water has, and µS/cm as gateways write it: what they
 * measure, times what they are ours.
 */
const UNITS: Readonly<Record<string, readonly [quantity: Quantity, factor: number, offset?: number]>> = {
  'S/m': ['conductivity', 1e4],
  'uS/cm': ['conductivity', 1],
  'µS/cm': ['conductivity', 1],
  ppm: ['ppm', 1],
  Cel: ['temperature', 1],
  K: ['temperature', 1, -273.15],
  Pa: ['pressure', 1e-5],
  hPa: ['pressure', 1e-3],
  'm3/s': ['flow', 3.6e6],
  'l/s': ['flow', 3600],
  m3: ['volume', 1000],
  l: ['volume', 1],
};
/** What each use of a meter takes. */
const TAKES: Readonly<Record<Sensor['reads'], readonly Quantity[]>> = {
  probe: ['conductivity', 'ppm'],
  temperature: ['temperature'],
  pressure: ['pressure'],
  product: ['flow'],
  waste: ['flow'],
  meter: ['volume', 'flow'],
};

/** What a meter that sends in a unit can stand for. */
export function canRead(unit: string | null): readonly Sensor['reads'][] {
  const quantity = unit === null ? undefined : UNITS[unit]?.[0];
  return (Object.keys(TAKES) as Sensor['reads'][]).filter((reads) => quantity !== undefined && TAKES[reads].includes(quantity));
}

/** Units a plain figure is shown in, by what it measures. */
const SHOWN: Readonly<Record<Quantity, string>> = {
  conductivity: 'µS/cm',
  ppm: 'ppm',
  temperature: '°C',
  pressure: 'bar',
  flow: 'L/h',
  volume: 'L',
};

/** A figure in the unit people know it by; null in a unit that water does not have. */
export function plainFigure({ unit, value }: Pick<Heard, 'unit' | 'value'>): { readonly value: number; readonly unit: string } | null {
  const known = unit === null ? undefined : UNITS[unit];
  if (!known || value === null) return null;
  const [quantity, factor, offset = 0] = known;
  return { value: value * factor + offset, unit: SHOWN[quantity] };
}

/**
 * A figure as a reading of a system has it: a probe's as its instrument would have shown it, the rest in canonical units.
 *
 * @returns null where the figure is none of what the meter stands for
 */
export function figureOf(
  { unit, value, sum }: Pick<Heard, 'unit' | 'value' | 'sum'>,
  reads: Sensor['reads'],
  instrument: Pick<Instrument, 'scale'> | null,
): number | null {
  const known = unit === null ? undefined : UNITS[unit];
  if (!known || !TAKES[reads].includes(known[0])) return null;
  const [quantity, factor] = known;
  // A flow that is added up is a total; the sum of m³/s over time is in m³.
  if (reads === 'meter' && quantity === 'flow') return sum === null ? null : sum * (factor / 3600);
  const plain = plainFigure({ unit, value });
  if (!plain || reads !== 'probe') return plain?.value ?? null;
  if (!instrument) return null;
  if (quantity === 'ppm') return instrument.scale.kind === 'conductivity' ? null : plain.value;
  return readingFromEc25(plain.value, instrument.scale);
}
