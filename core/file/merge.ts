import { changesBetween, same } from './changes';
import type { SystemRecord } from './record';
import type { PortReading, Reading, System, Work } from './schema';

/** What a file and this browser hold of the same system, side by side. */
export interface RecordComparison {
  /** Readings only this browser has, and only the file has. */
  readonly readingsHere: readonly Reading[];
  readonly readingsThere: readonly Reading[];
  /** Readings of one id that say different things: [here, there]. */
  readonly readingsDiffer: readonly (readonly [Reading, Reading])[];
  /** Parts of the system in which they differ. */
  readonly parts: readonly SystemPart[];
  /** Which of them was edited last. */
  readonly newer: 'here' | 'there' | 'same';
}

/** Parts of a system as a person knows them. */
export const SYSTEM_PARTS = {
  name: 'name and site',
  source: 'water',
  goal: 'goal',
  train: 'train',
  build: 'build',
  instruments: 'meters',
  cartridges: 'cartridges',
  services: 'work on parts',
  upkeep: 'rules of upkeep',
  sensors: 'meters on the air',
  prices: 'prices',
  choice: 'what options are held against',
  units: 'units',
} as const;
export type SystemPart = keyof typeof SYSTEM_PARTS;

const PART_OF: Partial<Record<keyof System, SystemPart>> = {
  name: 'name',
  site: 'name',
  source: 'source',
  goal: 'goal',
  train: 'train',
  build: 'build',
  instruments: 'instruments',
  comparison: 'instruments',
  cartridges: 'cartridges',
  services: 'services',
  upkeep: 'upkeep',
  tasks: 'upkeep',
  sensors: 'sensors',
  prices: 'prices',
  choice: 'choice',
  units: 'units',
};

const byId = <T extends { readonly id: string }>(list: readonly T[]): Map<string, T> => new Map(list.map((one) => [one.id, one]));

/** Sets a system here beside the same one in a file. */
export function compareRecords(here: SystemRecord, there: SystemRecord): RecordComparison {
  const [mine, theirs] = [byId(here.readings), byId(there.readings)];
  const changed = changesBetween(here.system, there.system).map(({ at }) => PART_OF[at[0] as keyof System]);
  const [edited, saved] = [Date.parse(here.system.updatedAt), Date.parse(there.system.updatedAt)];
  return {
    readingsHere: here.readings.filter(({ id }) => !theirs.has(id)),
    readingsThere: there.readings.filter(({ id }) => !mine.has(id)),
    readingsDiffer: here.readings.flatMap((reading) => {
      const other = theirs.get(reading.id);
      return other && !same({ ...reading, editedAt: other.editedAt }, other) ? [[reading, other] as const] : [];
    }),
    parts: (Object.keys(SYSTEM_PARTS) as SystemPart[]).filter((part) => changed.includes(part)),
    newer: edited === saved ? 'same' : edited > saved ? 'here' : 'there',
  };
}

/** Whether what is here and what a file holds of a system say the same. */
export const alike = ({ readingsHere, readingsThere, readingsDiffer, parts }: RecordComparison): boolean =>
  readingsHere.length + readingsThere.length + readingsDiffer.length + parts.length === 0;

/** Members of both lists; of one id the first list's. */
export const union = <T extends { readonly id: string }>(first: readonly T[], then: readonly T[]): T[] => {
  const known = byId(first);
  return [...first, ...then.filter((one) => !known.has(one.id))];
};

/** Pieces of work of both; of one that both went on with, every step, figure and deviation of either. */
function bothWorks(first: readonly Work[], then: readonly Work[]): Work[] {
  const other = byId(then);
  const both = <T>(mine: readonly T[], theirs: readonly T[]): T[] => [
    ...mine,
    ...theirs.filter((one) => !mine.some((own) => same(own, one))),
  ];
  return union(first, then)
    .map((work) => {
      const there = other.get(work.id);
      if (!there || there === work) return work;
      return {
        ...work,
        endedAt: work.endedAt ?? there.endedAt,
        done: [...work.done, ...there.done.filter(({ step }) => !work.done.some((one) => one.step === step))],
        measured: both(work.measured, there.measured).sort((a, b) => a.at.localeCompare(b.at)),
        deviations: both(work.deviations, there.deviations),
      };
    })
    .sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}

/** Of a reading that says different things here and in a file, which stands. */
export type ReadingSide = 'here' | 'there' | 'both';

/** The one changed last; where nobody knows, both. */
export function newerOf([here, there]: readonly [Reading, Reading]): ReadingSide {
  const [mine, theirs] = [here, there].map(({ editedAt }) => (editedAt === null ? -Infinity : Date.parse(editedAt)));
  return mine === theirs ? 'both' : mine! > theirs! ? 'here' : 'there';
}

/** One system of two, and what of either did not come along. */
export interface Merged {
  readonly record: SystemRecord;
  /** Whose parts stand. */
  readonly from: 'here' | 'there';
  /** Parts of the other in which it differs: they are not in the result. */
  readonly left: readonly SystemPart[];
}

/**
 * Takes a system here and the same one of a file together: every reading of both, every meter, sample, cartridge and
 * measured ratio of both; for the rest the one edited last stands, and what differs is named.
 *
 * @param newId an id nothing bears yet, for readings that share one where both stay
 * @param which of two readings that share an id and say different things, which stands
 */
export function mergeRecords(
  here: SystemRecord,
  there: SystemRecord,
  newId: () => string,
  which: (pair: readonly [Reading, Reading]) => ReadingSide = newerOf,
): Merged {
  const compared = compareRecords(here, there);
  const from = compared.newer === 'there' ? 'there' : 'here';
  const [base, other] = from === 'here' ? [here.system, there.system] : [there.system, here.system];
  const system: System = {
    ...base,
    id: here.system.id,
    instruments: union(base.instruments, other.instruments),
    cartridges: union(base.cartridges, other.cartridges),
    services: union(base.services, other.services).sort((a, b) => a.at.localeCompare(b.at)),
    upkeep: union(base.upkeep, other.upkeep),
    tasks: union(base.tasks, other.tasks),
    sensors: union(base.sensors, other.sensors),
    build: {
      ...base.build,
      works: bothWorks(base.build.works, other.build.works),
      ratios: union(base.build.ratios, other.build.ratios),
      ports: bothPorts(base.build.ports, other.build.ports),
    },
    source: { ...base.source, samples: union(base.source.samples, other.source.samples) },
  };
  const asked = new Map(compared.readingsDiffer.map((pair) => [pair[0].id, { there: pair[1], side: which(pair) }]));
  const readings = [
    ...here.readings.flatMap((reading) => {
      const pair = asked.get(reading.id);
      if (!pair || pair.side === 'here') return [reading];
      const other = { ...pair.there, systemId: here.system.id };
      return pair.side === 'there' ? [other] : [reading, { ...other, id: newId() }];
    }),
    ...compared.readingsThere.map((reading) => ({ ...reading, systemId: here.system.id })),
  ].sort((a, b) => a.at.localeCompare(b.at));
  // What the result took over from the other is not lost.
  const stillApart = changesBetween(system, other).map(({ at }) => PART_OF[at[0] as keyof System]);
  const onlyMore = (part: SystemPart): boolean => everyIn(system, other, part);
  return { record: { system, readings }, from, left: compared.parts.filter((part) => stillApart.includes(part) && !onlyMore(part)) };
}

/** Whether a part that is a list holds all of the other's list, as it stood there. */
function everyIn(system: System, other: System, part: SystemPart): boolean {
  const holds = <T extends { readonly id: string }>(list: readonly T[], all: readonly T[]): boolean => {
    const known = byId(list);
    return all.every((one) => same(known.get(one.id), one));
  };
  if (part === 'cartridges') return holds(system.cartridges, other.cartridges);
  if (part === 'services') return holds(system.services, other.services);
  if (part === 'upkeep') return holds(system.upkeep, other.upkeep) && holds(system.tasks, other.tasks);
  if (part === 'sensors') return holds(system.sensors, other.sensors);
  if (part === 'instruments') return holds(system.instruments, other.instruments) && same(system.comparison, other.comparison);
  return false;
}

/** A system beside the one it came from: an id of its own, and readings with ids of their own. */
export function copyOf({ system, readings }: SystemRecord, newId: () => string): SystemRecord {
  const id = newId();
  return {
    system: { ...system, id, name: `${system.name} (file)`.slice(0, 120) },
    readings: readings.map((reading) => ({ ...reading, id: newId(), systemId: id })),
  };
}

/** Ids that can stand in an address as they are. */
const PLAIN_ID = /^[\w-]{1,80}$/;

/** A system whose id cannot stand in an address gets one of its own. */
export function withPlainId(record: SystemRecord, newId: () => string): SystemRecord {
  if (PLAIN_ID.test(record.system.id)) return record;
  const id = newId();
  return { ...record, system: { ...record.system, id }, readings: record.readings.map((reading) => ({ ...reading, systemId: id })) };
}

/** Readings at ports of both: where both have one of a vessel, the later stands. */
function bothPorts(base: readonly PortReading[], other: readonly PortReading[]): PortReading[] {
  const key = ({ stageId, rank, vessel }: PortReading): string => `${stageId} ${rank} ${vessel}`;
  const all = [...base, ...other].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  return [...new Map(all.map((one) => [key(one), one])).values()];
}
