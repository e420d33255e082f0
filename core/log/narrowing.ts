import { RESIN_ROWS } from '../exchange';
import { currentSample, type Reading, type System } from '../file';
import { DAY_MS } from '../quantity';
import { firstRow, type ResinTracking } from './resin';

/** Which reading would narrow a resin's date most (science of logs, 10). */

/** Doubts behind a date, relative: of what the bed holds at the goal, of what it has taken up, of the daily load. */
export interface DateDoubt {
  readonly holdsEq: number;
  readonly takenEq: number;
  readonly perDayEq: number;
  readonly sd: { readonly holds: number; readonly taken: number; readonly perDay: number };
}
/** What a look tells: which of ln holds, ln taken and ln rate it sees, and with what relative doubt. */
export interface Look {
  readonly sees: readonly [holds: number, taken: number, perDay: number];
  readonly sd: number;
}

/** Days from its parts; and how it moves with the logarithm of each. */
const slopes = ({ holdsEq, takenEq, perDayEq }: DateDoubt): readonly [number, number, number] => [
  holdsEq / perDayEq,
  -takenEq / perDayEq,
  -(holdsEq - takenEq) / perDayEq,
];
const variances = ({ sd }: DateDoubt): readonly [number, number, number] => [sd.holds ** 2, sd.taken ** 2, sd.perDay ** 2];
const sum3 = (of: (i: 0 | 1 | 2) => number): number => of(0) + of(1) + of(2);

/** Standard deviation of a date, days, to first order. */
export function dateSd(doubt: DateDoubt): number {
  const [g, v] = [slopes(doubt), variances(doubt)];
  return Math.sqrt(sum3((i) => g[i] ** 2 * v[i]));
}

/** Share of the variance of a date that a look takes away. */
export function lookGain(doubt: DateDoubt, { sees, sd }: Look): number {
  const [g, v] = [slopes(doubt), variances(doubt)];
  const shared = sum3((i) => g[i] * v[i] * sees[i]);
  const own = sum3((i) => sees[i] ** 2 * v[i]) + sd ** 2;
  return shared ** 2 / own / sum3((i) => g[i] ** 2 * v[i]);
}

/** One look at a system, as a person would take it, and what it gains. */
export interface Suggestion {
  readonly says: string;
  readonly how: string;
  /** How much narrower the band of the date becomes, days. */
  readonly days: number;
}

/** Looks below this gain of the variance are not worth a word; nor is a band as narrow as this, days. */
const LEAST_GAIN = 0.15;
const LEAST_DAYS = 4;
/** Readings of the meter, and of the product, count for so long, days. */
const RATE_DAYS = 56;
const LATELY_DAYS = 45;
/** Doubt of the taken load where carbon dioxide was not measured, and of a rate by the plan or by the meter (5.1, 6). */
const UNMEASURED_SD = 0.1;
const RATE_SD = { design: 0.2, log: 0.08 } as const;

/** What would narrow the date of the resin most; null where nothing would by much. */
export function narrowing(system: System, readings: readonly Reading[], tracking: ResinTracking, now: string): Suggestion | null {
  const { daysLeft, limiting, points, ratePerDayEq, state } = tracking;
  if (!daysLeft || state === 'spent' || state === 'atGoal' || !(ratePerDayEq > 0)) return null;
  const width = daysLeft.p90 - daysLeft.p10;
  const since = (days: number): readonly Reading[] =>
    readings.filter(({ at, counts }) => counts && Date.parse(at) > Date.parse(now) - days * DAY_MS);
  const row = firstRow(system.train.stages);
  const outlet = system.train.probes.find(({ after }) => after === row.at(-1)?.id);
  if (outlet && !since(LATELY_DAYS).some(({ values }) => values.some(({ probeId }) => probeId === outlet.id)))
    return {
      says: 'Read the product: nobody has for six weeks',
      how: 'A clean product says that the resin holds; one past the goal says when it ended.',
      days: Math.round(width / 2),
    };
  const takenEq = limiting === 'anion' ? (points.at(-1)?.anionEq ?? 0) : (points.at(-1)?.cationEq ?? 0);
  const { kit, way } = currentSample(system.source);
  const isCarbonKnown = way === 'report' || (kit.pH !== null && kit.alkalinityMgL !== null);
  const isNew = tracking.learnedFrom === 0;
  const doubt: DateDoubt = {
    holdsEq: Math.max(takenEq, tracking.capacityEq),
    takenEq,
    perDayEq: ratePerDayEq,
    // What is wrong with every load alike cancels once a cartridge was learned from (5.1).
    sd: { holds: tracking.capacitySd, taken: isNew && !isCarbonKnown ? UNMEASURED_SD : 0.05, perDay: RATE_SD[tracking.rateFrom] },
  };
  const looks: (Look & Omit<Suggestion, 'days'>)[] = [
    ...(row.length === 1 && RESIN_ROWS[row[0]!.resinClass].colours
      ? [
          {
            sees: [-1, 1, 0] as const,
            sd: 0.06,
            says: 'Measure how far the new colour has come',
            how: 'Write it beside a reading, as “colour 12 of 22 cm”.',
          },
        ]
      : []),
    ...(isNew && limiting === 'anion' && !isCarbonKnown
      ? [
          {
            sees: [0, 1, 0] as const,
            sd: 0.05,
            says: 'Test pH and alkalinity of the tap',
            how: 'They tell the carbon dioxide, which takes up resin and no meter shows.',
          },
        ]
      : []),
    ...(since(RATE_DAYS).some(({ meterL }) => meterL !== null)
      ? []
      : [
          {
            sees: [0, 0, 1] as const,
            sd: 0.05,
            says: 'Read the product’s water meter with every reading',
            how: 'The date rests on the planned use until then.',
          },
        ]),
  ];
  const [best] = looks.map((look) => ({ ...look, gain: lookGain(doubt, look) })).sort((a, b) => b.gain - a.gain);
  if (!best || best.gain < LEAST_GAIN) return null;
  const days = Math.round(width * (1 - Math.sqrt(1 - Math.min(0.99, best.gain))));
  return days < LEAST_DAYS ? null : { says: best.says, how: best.how, days };
}
