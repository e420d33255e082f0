import Papa from 'papaparse';
import { mounting } from '../advice';
import { allStages, fittedProbes, readsFlow, type HookUp, type System } from '../file';
import { priceList } from '../ledger';
import { timesPerYear, type PartLife } from '../life';
import { atStart, DAYS_PER_YEAR, inSentence, words } from '../quantity';
import { kindOf, part, PART_GROUPS, type Part, type PartGroup, type Thread } from '../stage';
import type { SolvedTrain } from '../train';
import { tubeLines, type TubeLine } from './plumbing';
import { fixingParts, HANGING_ROWS, hangingOf, isBoat, ownPieces, pushedTo } from './hanging';

/** A line of the list with what it costs on this job. */
export interface PricedPart extends Part {
  readonly group: PartGroup;
  /** What one costs: typed for this job, or by its prices; null where neither says. */
  readonly price: number | null;
  /** Whether somebody typed it. */
  readonly typed: boolean;
  /** A line somebody wrote. */
  readonly own: boolean;
}

export const GROUP_LABELS: Readonly<Record<PartGroup, string>> = {
  filters: 'Filters and carbon',
  membranes: 'Membranes',
  pumps: 'Pumps',
  resin: 'Resin',
  cartridges: 'Cartridges and softening',
  tanks: 'Tanks and lamp',
  tubing: 'Tubing and fittings',
  hookUp: 'Hook-up',
  meters: 'Meters and mounting',
  own: 'Added by hand',
  spares: 'Spares for a year',
};

/** Ways a feed is taken from a house, each with its pieces (common practice). */
export const HOOK_UP_SETS: Readonly<Record<HookUp, { readonly label: string; readonly says: string; readonly parts: readonly string[] }>> =
  {
    outdoorTap: {
      label: 'Outdoor hose tap',
      says: 'Off and on by hand; frost takes it, so it is drained in winter.',
      parts: ['Hose coupling to tubing', 'Backflow preventer, where your code asks for one'],
    },
    laundryTap: {
      label: 'Laundry cold tap with a Y',
      says: 'The machine keeps its own leg; both legs have valves.',
      parts: ['Y with two valves, 3/4 in hose thread', 'Adapter, hose thread to tubing', 'Washer, spare'],
    },
    faucet: {
      label: 'Faucet, quick coupling or diverter',
      says: 'For a rented flat: taken off after each run. Cold lever only.',
      parts: ['Diverter or quick coupling for the faucet', 'Thread adapter', 'Tubing coupling'],
    },
    angleStop: {
      label: 'Under-sink angle stop',
      says: 'Stays on: a shut-off of its own, and a leak stop where nobody looks.',
      parts: ['Tee for the angle stop', 'Ball valve to tubing', 'Leak stop'],
    },
    fixed: {
      label: 'Fixed pipe',
      says: 'By a licensed plumber where your code says so.',
      parts: ['Ball valve', 'Check valve or backflow preventer, as your code asks', 'Union'],
    },
  };

/** Tubing is cut with a little over (common practice). */
const CUT_OVER = 1.1;

/** Everything a system is built of, with why and how many. */
export function partsOf(system: System, solved: SolvedTrain | null, lives: readonly PartLife[] = []): PricedPart[] {
  const stages = allStages(system.train);
  const around = { prices: priceList(system), units: system.units, pushed: pushedTo(system) !== null };
  const priced = (group: PartGroup, one: Part, own = false): PricedPart => {
    const typed = system.build.partPrices.find((price) => price.part === one.part);
    return { ...one, group, price: typed?.each ?? one.each, typed: typed !== undefined, own };
  };
  const lines = tubeLines(system, solved);
  return gathered([
    ...stages.flatMap((stage) =>
      kindOf(stage)
        .parts(stage, around)
        .map((entry) => priced(kindOf(stage).partGroup, part(entry))),
    ),
    ...tubingParts(system, lines).map((one) => priced('tubing', one)),
    ...hookUpParts(system, lines).map((one) => priced('hookUp', one)),
    ...meterParts(system).map((one) => priced('meters', one)),
    ...system.build.ownParts.map(({ id, name, count, each }): PricedPart => ({
      ...part({ part: id, name, why: 'added by hand', count, each }),
      group: 'own',
      price: each,
      typed: each !== null,
      own: true,
    })),
    ...sparesOf(system, around, lives).map((one) => priced('spares', one)),
  ]);
}

/** The same piece wanted by several is one line with all of them. */
function gathered(parts: readonly PricedPart[]): PricedPart[] {
  const found = new Map<string, PricedPart>();
  for (const one of parts) {
    const key = `${one.group}/${one.part}`;
    const known = found.get(key);
    found.set(
      key,
      known
        ? {
            ...known,
            count: known.count + one.count,
            why: known.why.split('; ').includes(one.why) ? known.why : `${known.why}; ${one.why}`,
          }
        : one,
    );
  }
  return PART_GROUPS.flatMap((group) => [...found.values()].filter((one) => one.group === group));
}

/** A line by its size, and its colour where somebody has said it: a pipe is not coloured, it is marked. */
function tubeName({ key, name }: TubeLine['size'], colour: string | null): string {
  const pipe = key.startsWith('dn');
  const plain = `${pipe ? 'Pipe' : 'Tube'} ${name}`;
  return colour === null ? plain : `${plain}, ${pipe ? 'marked ' : ''}${colour}`;
}

/** Tubing by size and colour, and fittings counted from the ends of its lines. */
function tubingParts(system: System, lines: readonly TubeLine[]): Part[] {
  const { colours } = system.build;
  const threads = new Map(allStages(system.train).map((stage) => [stage.id, kindOf(stage).plumbed(stage).thread]));
  const parts: Part[] = [];
  const sizes = [...new Map(lines.map(({ size }) => [size.key, size])).values()];
  for (const size of sizes) {
    const mine = lines.filter((line) => line.size.key === size.key);
    for (const colour of new Set(mine.map(({ carries }) => colours[carries]))) {
      const same = mine.filter(({ carries }) => colours[carries] === colour);
      const metres = (CUT_OVER * same.reduce((sum, { lengthMm }) => sum + lengthMm, 0)) / 1000;
      parts.push(
        part({
          part: `tube-${size.key}${colour === null ? '' : `-${colour}`}`,
          name: tubeName(size, colour),
          why: `${same.map(({ letter }) => letter).join(', ')}, and a tenth over`,
          count: Math.ceil(10 * metres) / 10,
          unit: 'm',
        }),
      );
    }
    // Small housings have quarter-inch ports whatever tube comes to them: fittings go by tube and by thread.
    const ports = mine.flatMap(({ ends }) =>
      ends
        .filter(({ at }) => at !== 'tap' && at !== 'drain' && !at.startsWith('use'))
        .map(({ at }) => otherThread(size.name, threads.get(at) ?? null)),
    );
    for (const thread of new Set(ports)) {
      const count = ports.filter((one) => one === thread).length;
      parts.push(
        part({
          part: thread === null ? `elbow-${size.key}` : `elbow-${size.key}-${thread.replace('/', '-')}`,
          name:
            thread === null ? `Fitting ${size.name}, straight or elbow` : `Fitting ${size.name} to ${thread} in thread, straight or elbow`,
          why: `counted from ${count} ${count === 1 ? 'port' : 'ports'}`,
          count,
        }),
      );
    }
    const tees = mine.reduce((sum, line) => sum + line.tees, 0);
    if (tees > 0) parts.push(part({ part: `tee-${size.key}`, name: `Tee ${size.name}`, why: teeWhy(mine), count: tees }));
  }
  return parts;
}

/** A thread that is not the tube's own size; null where tube and port are of one. */
const otherThread = (tube: string, thread: Thread | null): Thread | null => (thread === null || tube === `${thread} in` ? null : thread);

function teeWhy(lines: readonly TubeLine[]): string {
  const at = lines.filter(({ tees }) => tees > 0).map(({ letter, tees }) => (tees === 1 ? letter : `${letter} ×${tees}`));
  return `where more than two meet: ${at.join(', ')}`;
}

const slug = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .slice(0, 60);

function hookUpParts(system: System, lines: readonly TubeLine[]): Part[] {
  const { build } = system;
  const boat = isBoat(system);
  const set = build.hookUp === null ? [] : HOOK_UP_SETS[build.hookUp].parts;
  const drains = lines.filter(({ ends }) => ends.some(({ at }) => at === 'drain')).length;
  return [
    ...set.map((name) => part({ part: slug(name), name, why: HOOK_UP_SETS[build.hookUp!].label.toLowerCase(), count: 1 })),
    ...(drains > 0
      ? [
          part({
            part: boat ? 'through-hull' : 'drain-saddle',
            name: boat ? 'Through-hull for the waste, vented loop' : 'Drain saddle or stand pipe clip, with an air gap',
            why: drains === 1 ? 'one waste line' : `${drains} lines to the drain`,
            count: drains,
          }),
        ]
      : []),
    ...ownPieces(system),
  ];
}

function meterParts(system: System): Part[] {
  const { train, instruments } = system;
  const probes = fittedProbes(system);
  const used = new Set(probes.map(({ instrumentId }) => instrumentId));
  return [
    ...instruments
      .filter(({ id }) => used.has(id))
      .map(({ name }) => part({ part: `meter-${slug(name)}`, name, why: 'reads the probes', count: 1 })),
    ...(probes.length > 0
      ? [
          part({
            part: 'probe-tee',
            name: 'Probe in its tee',
            why: probes.map(({ name }) => name.toLowerCase()).join(', '),
            count: probes.length,
          }),
        ]
      : []),
    ...train.gauges.map((gauge) =>
      part({
        part: readsFlow(gauge) ? `flow-meter-${gauge.at}` : `gauge-${gauge.at}`,
        name: readsFlow(gauge) ? 'Flow meter' : 'Pressure gauge in its tee',
        why: inSentence(gauge.name),
        count: 1,
      }),
    ),
    ...fixingParts(system),
  ];
}

/** What is changed about once a year is kept in store. */
const LEAST_A_YEAR = 0.95;

/** What is bought again within a year, whole pieces: as often as its life says, by the calendar where that is not known. */
function sparesOf(system: System, around: Parameters<ReturnType<typeof kindOf>['parts']>[1], lives: readonly PartLife[]): Part[] {
  return allStages(system.train).flatMap((stage) =>
    kindOf(stage)
      .parts(stage, around)
      .map(part)
      .flatMap((one) => {
        if (one.wearsDays === null) return [];
        const own = lives.filter((life) => life.stage.id === stage.id && life.brings).map(timesPerYear);
        const perYear = own.length > 0 ? Math.max(...own) : DAYS_PER_YEAR / one.wearsDays;
        // What lasts longer than a year is no spare of one.
        if (perYear < LEAST_A_YEAR) return [];
        const times = Math.max(1, Math.round(perYear));
        return [{ ...one, count: times * one.count, why: times === 1 ? 'once a year' : `${times} times a year` }];
      }),
  );
}

/** What a list comes to, with the mark-up of the job; lines without a price are counted, not guessed. */
export interface PartsTotal {
  readonly parts: number;
  readonly spares: number;
  readonly unpriced: number;
  readonly markUp: number;
  readonly total: number;
}

/** What so many lines come to, as far as they have a price. */
export const sumOf = (parts: readonly PricedPart[]): number => parts.reduce((all, { price, count }) => all + (price ?? 0) * count, 0);

export function partsTotal(parts: readonly PricedPart[], markUp: number): PartsTotal {
  const build = sumOf(parts.filter(({ group }) => group !== 'spares'));
  return {
    parts: build,
    spares: sumOf(parts.filter(({ group }) => group === 'spares')),
    unpriced: parts.filter(({ price, group }) => price === null && group !== 'spares').length,
    markUp: build * markUp,
    total: build * (1 + markUp),
  };
}

/** Tools a train asks for: those of any job, and what its stages add (common practice). */
export function toolsFor(system: System): string[] {
  const own = new Set(allStages(system.train).flatMap((stage) => kindOf(stage).tools(stage)));
  return [
    'Tube cutter',
    'Housing spanner',
    ...HANGING_ROWS[hangingOf(system)].tools,
    'Pressure gauge on a hose thread',
    'Thermometer',
    ...own,
    ...(system.train.probes.length > 0 ? ['Pen meter to check against'] : []),
    'Bucket, towels, dry paper',
  ];
}

/** The tools in a sentence. */
export const toolsSays = (system: System): string => `${atStart(toolsFor(system).map(inSentence).join(', '))}.`;

/** Weight and width on the wall, in words for the list's head. */
export function standsSays({ train, units }: System): {
  readonly wetKg: number;
  readonly wallM: number;
  readonly tankKg: number;
  readonly text: string;
} {
  const all = mounting(train.stages);
  return { ...all, text: `about ${words(units).kg(Number(all.wetKg.toPrecision(2)))} wet` };
}

/** The list as comma-separated values (RFC 4180) for a spreadsheet: one row a part, full figures, no cell that it would carry out. */
export function partsCsv(parts: readonly PricedPart[], currency: string): string {
  return Papa.unparse(
    [
      ['Group', 'Part', 'Why', 'Count', 'Unit', `Each, ${currency}`, `Sum, ${currency}`],
      ...parts.map((one) => [
        GROUP_LABELS[one.group],
        one.name,
        one.why,
        one.count,
        one.unit,
        one.price ?? '',
        one.price === null ? '' : Number((one.price * one.count).toFixed(2)),
      ]),
    ],
    { escapeFormulae: true },
  );
}
