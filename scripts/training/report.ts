import { mean, median } from '../../core/numeric';
import type { BandHit, DateHit, Judged, StepHit } from './judge';

/** What the training logs come to, as lines: each figure with its count, and what it is held to. */

const SYSTEMS = ['E', 'F', 'G', 'H', 'I', 'J'] as const;
/** What is asked for (the issue this answers, and the README of the logs). */
export const ASKED = {
  band: [0.75, 0.88],
  dates: [0.7, 0.88],
  dateWidth: 0.9,
  dateBias: 3,
  alarms: 0.5,
  slips: 0.9,
  questions: 0.01,
  passage: 0.9,
  meters: 0.9,
  supply: 0.5,
} as const;

const middle = (list: readonly number[]): number => median(list.filter(Number.isFinite));

/** Wilson's interval of a share at 90 %, where the cases are few. */
export function wilson(hits: number, of: number): readonly [number, number] {
  const z = 1.6449;
  const p = hits / of;
  const centre = (p + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of))) / (1 + (z * z) / of);
  return [centre - half, centre + half];
}
/** Interval score of an 80 % interval: its width, and ten times what it misses by (Gneiting and Raftery 2007, recalled). */
export const intervalScore = (low: number, high: number, truth: number): number => high - low + 10 * Math.max(0, low - truth, truth - high);

const share = (hits: number, of: number): string => {
  if (of === 0) return '– of 0';
  const [low, high] = wilson(hits, of);
  return `${hits} of ${of} = ${((100 * hits) / of).toFixed(1)} %${of < 20 ? ` [${(100 * low).toFixed(0)}–${(100 * high).toFixed(0)} %]` : ''}`;
};

export interface Line {
  readonly text: string;
  /** Whether it is what was asked for; null where nothing is asked. */
  readonly holds: boolean | null;
}
const line = (text: string, holds: boolean | null = null): Line => ({ text, holds });
const between = (value: number, [low, high]: readonly number[]): boolean => value >= low! && value <= high!;

function bandLines(bands: readonly BandHit[]): Line[] {
  const lines: Line[] = [];
  const of = (label: string, own: readonly BandHit[], asked: boolean): void => {
    if (own.length === 0) return;
    const inside = own.filter(({ truth, low, high }) => truth >= low - 5e-4 && truth <= high + 5e-4).length;
    const width = middle(own.map(({ low, high }) => high - low));
    const score = mean(own.filter(({ low }) => Number.isFinite(low)).map(({ low, high, truth }) => intervalScore(low, high, truth)));
    lines.push(
      line(
        `${label}: inside ${share(inside, own.length)}; median width ${width.toFixed(3)}, interval score ${score.toFixed(3)}, median off ${middle(own.map((h) => h.middle - h.truth)).toFixed(3)}`,
        asked ? between(inside / own.length, ASKED.band) : null,
      ),
    );
  };
  for (const quantity of ['a', 'b', 'resin'] as const) {
    const name = { a: 'membrane output', b: 'salt passage', resin: 'resin left' }[quantity];
    const own = bands.filter((hit) => hit.of === quantity && !(quantity === 'b' && hit.seal));
    of(`${name}, all`, own, true);
    for (const system of SYSTEMS)
      of(
        `${name}, ${system}`,
        own.filter((hit) => hit.system === system),
        true,
      );
    if (quantity === 'a')
      of(
        `${name}, scaling restrictor`,
        own.filter(({ scaling }) => scaling),
        true,
      );
    if (quantity === 'b')
      of(
        `${name}, runs with a seal`,
        bands.filter((hit) => hit.of === 'b' && hit.seal),
        false,
      );
  }
  return lines;
}

function dateLines(dates: readonly DateHit[]): Line[] {
  const of = (label: string, own: readonly DateHit[], asked = false): Line[] => {
    if (own.length === 0) return [];
    const inside = own.filter(({ days, p10, p90 }) => days >= p10 && days <= p90).length;
    const wide = middle(own.map(({ p10, p90, days }) => (p90 - p10) / Math.max(1, days)));
    const bias = middle(own.map(({ p50, days }) => p50 - days));
    const later = own.filter(({ days, p90 }) => days > p90).length;
    const text = `${label}: inside ${share(inside, own.length)}; width ${middle(own.map(({ p10, p90 }) => p90 - p10)).toFixed(0)} d, ${wide.toFixed(2)} of the time left; middle off ${bias.toFixed(1)} d; missed: true later ${later}, earlier ${own.length - inside - later}`;
    return [
      line(text, asked ? between(inside / own.length, ASKED.dates) && wide <= ASKED.dateWidth && Math.abs(bias) <= ASKED.dateBias : null),
    ];
  };
  return [
    ...of('dates, all', dates, true),
    ...SYSTEMS.flatMap((system) => of(`dates, ${system}`, dates.filter((hit) => hit.system === system))), // prettier-ignore
    ...of('dates, a holiday before the goal', dates.filter(({ awayDays }) => awayDays > 0)), // prettier-ignore
    ...of('dates, first cartridge', dates.filter(({ learnedFrom }) => learnedFrom === 0)), // prettier-ignore
  ];
}

function stepLines(steps: readonly StepHit[]): Line[] {
  const isDated = ({ dated, row }: StepHit): boolean => dated !== null && Math.abs(dated - row) <= 2;
  const of = (label: string, own: readonly StepHit[], right: (hit: StepHit) => number, asked: number): Line => {
    const found = own.filter(isDated);
    const points = found.reduce((sum, hit) => sum + right(hit), 0);
    const names = [...new Set(found.map(({ named }) => named ?? 'none'))].map(
      (name) => `${name} ${found.filter((hit) => hit.named === name).length}`,
    );
    return line(
      `${label}: dated within two readings ${share(found.length, own.length)}; named right ${points} of ${own.length} (${names.join(', ')})`,
      own.length === 0 ? null : points / own.length >= asked,
    );
  };
  const kind = (k: StepHit['kind']): StepHit[] => steps.filter((hit) => hit.kind === k);
  const passage = [...kind('oxidation'), ...kind('seal')];
  return [
    of('oxidation and seal, as a rise of passage', passage, () => 1, ASKED.passage),
    of(
      'oxidation, apart from a seal',
      kind('oxidation'),
      ({ named }) => (named === 'oxidation' ? 1 : named === 'either' ? 0.5 : 0),
      ASKED.passage,
    ),
    of('seal, apart from oxidation', kind('seal'), ({ named }) => (named === 'seal' ? 1 : named === 'either' ? 0.5 : 0), ASKED.passage),
    of('meter', kind('meter'), ({ named }) => (named === 'meter' ? 1 : named === 'either' ? 0.5 : 0), ASKED.meters),
    of('supply', kind('supply'), ({ named }) => (named === 'supply' ? 1 : named === 'either' ? 0.5 : 0), ASKED.supply),
  ];
}

/** All lines of a judgement. */
export function reportOf(judged: Judged): Line[] {
  const years = Object.values(judged.years).reduce((sum, one) => sum + one, 0);
  const wrong = judged.alarms.filter(({ explained }) => !explained);
  const byId = [...new Set(wrong.map(({ id }) => id))].map((id) => `${id} ${wrong.filter((one) => one.id === id).length}`);
  const { slips, asks, rows, columns } = judged;
  const found = slips.filter((slip) => slip.found).length;
  const kinds = [...new Set(slips.map(({ kind }) => kind))].map((kind) => {
    const own = slips.filter((slip) => slip.kind === kind);
    return `${kind} ${own.filter((slip) => slip.found).length}/${own.length}`;
  });
  return [
    ...bandLines(judged.bands),
    ...dateLines(judged.dates),
    line(
      `false alarms: ${wrong.length} in ${years.toFixed(1)} years = ${(wrong.length / years).toFixed(2)} a year for a system (${byId.join(', ')}); ${judged.alarms.length - wrong.length} explained`,
      wrong.length / years <= ASKED.alarms,
    ),
    line(
      `slips found: ${share(found, slips.length)}; mended rightly ${share(slips.filter(({ mended }) => mended).length, slips.length)} (${kinds.join(', ')})`,
      slips.length === 0 ? null : found / slips.length >= ASKED.slips,
    ),
    line(
      `questions about rows without slip: ${asks.length} of ${rows} = ${((100 * asks.length) / Math.max(1, rows)).toFixed(2)} %`,
      asks.length / Math.max(1, rows) <= ASKED.questions,
    ),
    ...stepLines(judged.steps),
    line(`columns guessed by their heads: ${share(columns.right, columns.of)}`),
  ];
}

/** What the log keeps to by now: a change that loses one of these makes it worse. */
export function keeps(judged: Judged): { readonly says: string; readonly kept: boolean }[] {
  const { bands, dates, alarms, slips, asks, rows } = judged;
  const years = Object.values(judged.years).reduce((sum, one) => sum + one, 0);
  const wrong = alarms.filter(({ explained }) => !explained).length / years;
  const at = (says: string, value: number, low: number, high: number): { says: string; kept: boolean } => ({
    says: `${says}: ${value.toFixed(3)}, kept from ${low} to ${high}`,
    kept: value >= low && value <= high,
  });
  /** A share lies outside where all it can be by so few cases does: part of the runs have scatter of their own. */
  const share = (says: string, hits: number, of: number, low: number, high: number): { says: string; kept: boolean } => {
    const [least, most] = of === 0 ? [0, 1] : wilson(hits, of);
    return { says: `${says}: ${hits} of ${of}, kept from ${low} to ${high}`, kept: most >= low && least <= high };
  };
  const inside = (says: string, of: BandHit['of'], low: number, high: number): { says: string; kept: boolean } => {
    const own = bands.filter((hit) => hit.of === of);
    return share(says, own.filter(({ truth, ...band }) => truth >= band.low && truth <= band.high).length, own.length, low, high);
  };
  const held = dates.filter(({ days, p10, p90 }) => days >= p10 && days <= p90).length;
  return [
    inside('membrane output inside its band', 'a', 0.75, 0.94),
    inside('salt passage inside its band', 'b', 0.75, 0.95),
    inside('resin left inside its band', 'resin', 0.75, 0.88),
    share('dates inside their band', held, dates.length, 0.7, 0.88),
    at('false alarms a year', wrong, 0, 0.5),
    share('slips found', slips.filter((slip) => slip.found).length, slips.length, 0.9, 1),
    at('questions about rows without slip', asks.length / Math.max(1, rows), 0, 0.01),
  ];
}
