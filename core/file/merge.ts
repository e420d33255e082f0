import { PART_STATE, type Stage } from '../stage';
import { asText, changesBetween, same } from './changes';
import { saysTheSame } from './readingChanges';
import type { SystemRecord } from './record';
import { goneBy, joinedRemovals, removalsAfter, type JoinedList } from './removed';
import { bothServices, fittedByWork } from './sameWork';
import { JOINED_LISTS, type Instrument, type PortReading, type Reading, type Service, type System, type Work } from './schema';
import { allStages, mapStages } from './select';
import { byId, onlyIn, union } from './union';

/** What a file and this browser hold of the same system, side by side. */
export interface RecordComparison {
  /** Readings only this browser has, and only the file has. */
  readonly readingsHere: readonly Reading[];
  readonly readingsThere: readonly Reading[];
  /** Readings of one id that say different things: [here, there]. */
  readonly readingsDiffer: readonly (readonly [Reading, Reading])[];
  /** Readings one of them still has and the other removed. */
  readonly readingsGone: readonly Reading[];
  /** Parts of the system in which they differ. */
  readonly parts: readonly SystemPart[];
  /** Which of them was edited last. */
  readonly newer: 'here' | 'there' | 'same';
  /** Whose parts stand where they are joined. */
  readonly stands: 'here' | 'there';
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
  away: 'upkeep',
  orderDays: 'upkeep',
  sensors: 'sensors',
  prices: 'prices',
  choice: 'choice',
  units: 'units',
};

/** Sets a system here beside the same one in a file. */
export function compareRecords(here: SystemRecord, there: SystemRecord): RecordComparison {
  const theirs = byId(there.readings);
  const isGone = goneBy(joinedRemovals(here.system.removed, there.system.removed));
  const [onlyHere, onlyThere] = [onlyIn(here.readings, there.readings), onlyIn(there.readings, here.readings)];
  const stays = ({ id }: Reading): boolean => !isGone('readings', id);
  const changed = changesBetween(here.system, there.system).map(({ at }) => PART_OF[at[0] as keyof System]);
  const [edited, saved] = [Date.parse(here.system.updatedAt), Date.parse(there.system.updatedAt)];
  return {
    readingsHere: onlyHere.filter(stays),
    readingsThere: onlyThere.filter(stays),
    readingsGone: [...onlyHere, ...onlyThere].filter((reading) => !stays(reading)),
    readingsDiffer: here.readings.filter(stays).flatMap((reading) => {
      const other = theirs.get(reading.id);
      return other && !saysTheSame(reading, other) ? [[reading, other] as const] : [];
    }),
    parts: (Object.keys(SYSTEM_PARTS) as SystemPart[]).filter((part) => changed.includes(part)),
    newer: edited === saved ? 'same' : edited > saved ? 'here' : 'there',
    stands: baseOf(here.system, there.system),
  };
}

/** Whether what is here and what a file holds of a system say the same. */
export const alike = ({ readingsHere, readingsThere, readingsDiffer, readingsGone, parts }: RecordComparison): boolean =>
  readingsHere.length + readingsThere.length + readingsDiffer.length + readingsGone.length + parts.length === 0;

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

/** The one changed last; where nobody knows, both, unless they differ only in being struck out or pictured. */
export function newerOf([here, there]: readonly [Reading, Reading]): ReadingSide {
  const [mine, theirs] = [here, there].map(({ editedAt }) => (editedAt === null ? -Infinity : Date.parse(editedAt)));
  if (mine !== theirs) return mine! > theirs! ? 'here' : 'there';
  return content(here) === content(there) ? 'here' : 'both';
}

/** What a reading says, as text: whatever system it stands in, whenever it was changed, struck out or pictured. */
const content = (reading: Reading): string => asText({ ...reading, systemId: '', editedAt: null, counts: true, photos: [] });

/** A short name of a text: the same on every device (FNV-1a, 53 bits of two runs; Fowler, Noll and Vo, recalled). */
function nameOf(text: string): string {
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193);
    b = Math.imul(b ^ text.charCodeAt(i), 0x85ebca6b);
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36);
}
const LONGEST_ID = 80;

/**
 * Two readings of one id that say different things, as both devices will have them: which of them keeps the id, and the
 * name of the other, rest on what they say, so that however often copies are exchanged there is one twin.
 */
function twins(one: Reading, other: Reading): [Reading, Reading] {
  const [first, second] = content(one) <= content(other) ? [one, other] : [other, one];
  const name = nameOf(content(second));
  return [first, { ...second, id: `${second.id.slice(0, LONGEST_ID - name.length - 1)}~${name}` }];
}

/** What stands of two readings of one id. */
function standing([here, there]: readonly [Reading, Reading], side: ReadingSide, isAsked: boolean): Reading[] {
  if (side === 'both') return twins(here, there);
  const [kept, left] = side === 'here' ? [here, there] : [there, here];
  // Struck out beats kept, unless a person looked at the two.
  const counts = isAsked ? kept.counts : kept.counts && left.counts;
  return [{ ...kept, counts, photos: [...new Set([...kept.photos, ...left.photos])].sort().slice(0, MOST_PHOTOS) }];
}
const MOST_PHOTOS = 12;

/** What a person said of two copies before they are joined. */
export interface MergeChoices {
  /** Which of two readings that share an id and say different things stands; undefined where nobody said. */
  readonly which?: (pair: readonly [Reading, Reading]) => ReadingSide | undefined;
  /** Readings of a visit written down twice that are struck out. */
  readonly once?: ReadonlySet<string>;
  /** Whether two pieces of work some days apart are one. */
  readonly isOneWork?: (one: Service, other: Service) => boolean;
}

/** One system of two, and what of either did not come along. */
export interface Merged {
  readonly record: SystemRecord;
  /** Whose parts stand. */
  readonly from: 'here' | 'there';
  /** Parts of the other in which it differs: they are not in the result. */
  readonly left: readonly SystemPart[];
}

/** What one copy alone decides: without lists that are joined, and without what the parts went through. */
const decided = (system: System): string =>
  asText({
    ...system,
    ...Object.fromEntries(JOINED_LISTS.map((list) => [list, null])),
    removed: null,
    instruments: null,
    build: { ...system.build, works: null, ratios: null, ports: null },
    source: { ...system.source, samples: null },
    train: mapStages(system.train, (stage) => ({ ...stage, ...Object.fromEntries(PART_STATE.map((key) => [key, null])) })),
  });

/** Whose parts stand: the one edited last; of one instant the one whose text comes first, so that the order of asking tells nothing. */
function baseOf(here: System, there: System): 'here' | 'there' {
  const [mine, theirs] = [Date.parse(here.updatedAt), Date.parse(there.updatedAt)];
  if (mine !== theirs) return mine > theirs ? 'here' : 'there';
  return decided(here) <= decided(there) ? 'here' : 'there';
}

/** A stage with the newer part of two copies in it: what one keeper fitted is not set back by what the other did elsewhere. */
function withNewerPart(stage: Stage, other: Stage | undefined): Stage {
  if (other?.kind !== stage.kind || !('fittedOn' in stage) || !('fittedOn' in other)) return stage;
  if (other.fittedOn === null || (stage.fittedOn !== null && other.fittedOn <= stage.fittedOn)) return stage;
  // A bed is known by its vessel, which moves along a row with its name and volume.
  if (stage.kind === 'resin' || stage.kind === 'carbon') return other;
  const state = Object.fromEntries(PART_STATE.flatMap((key) => (key in other ? [[key, other[key as keyof Stage]]] : [])));
  return { ...stage, ...state };
}

/** A meter with the newer check of two copies. */
const withNewerCheck = (meter: Instrument, other: Instrument | undefined): Instrument =>
  other?.calibratedOn && (meter.calibratedOn === null || other.calibratedOn > meter.calibratedOn)
    ? { ...meter, calibratedOn: other.calibratedOn, gain: other.gain, offset: other.offset }
    : meter;

/**
 * Takes a system here and the same one of a file together: every reading of both but those removed, every meter, sample,
 * piece of work and measured ratio of both, of each part the newer; for the rest the one edited last stands, and what
 * differs is named. In whichever order and however often copies are joined, the same record comes out.
 */
export function mergeRecords(here: SystemRecord, there: SystemRecord, choices: MergeChoices = {}): Merged {
  const compared = compareRecords(here, there);
  const from = compared.stands;
  const [base, other] = from === 'here' ? [here.system, there.system] : [there.system, here.system];
  const removed = joinedRemovals(base.removed, other.removed);
  const isGone = goneBy(removed);
  const joined = <K extends Exclude<JoinedList, 'readings' | 'services'>>(list: K): System[K] =>
    union<{ id: string }>(base[list], other[list]).filter(({ id }) => !isGone(list, id)) as System[K];
  const left = (services: readonly Service[]): Service[] => services.filter(({ id }) => !isGone('services', id));
  const work = bothServices(left(base.services), left(other.services), choices.isOneWork);
  const worked = ({ train, services }: System): System['train'] =>
    mapStages(train, (stage) => fittedByWork(stage, services, work.services));
  const [parts, meters] = [byId(allStages(worked(other))), byId(other.instruments)];
  const system: System = {
    ...base,
    id: here.system.id,
    instruments: union(base.instruments, other.instruments).map((meter) => withNewerCheck(meter, meters.get(meter.id))),
    train: mapStages(worked(base), (stage) => withNewerPart(stage, parts.get(stage.id))),
    cartridges: joined('cartridges'),
    services: work.services,
    upkeep: joined('upkeep'),
    tasks: joined('tasks'),
    sensors: joined('sensors'),
    away: joined('away'),
    removed: removalsAfter(removed, {
      went: work.twice.map(([, { id }]) => ({ of: 'services', id })),
      came: [],
      at: new Date(Math.max(...[base, other].map(({ updatedAt }) => Date.parse(updatedAt)))).toISOString(),
    }),
    build: {
      ...base.build,
      works: bothWorks(base.build.works, other.build.works),
      ratios: union(base.build.ratios, other.build.ratios),
      ports: bothPorts(base.build.ports, other.build.ports),
    },
    source: { ...base.source, samples: union(base.source.samples, other.source.samples) },
  };
  const readings = joinedReadings(here, there, choices).filter(({ id }) => !isGone('readings', id));
  // What the result took over from the other is not lost.
  const stillApart = changesBetween(system, other).map(({ at }) => PART_OF[at[0] as keyof System]);
  const onlyMore = (part: SystemPart): boolean => everyIn(system, other, part);
  return { record: { system, readings }, from, left: compared.parts.filter((part) => stillApart.includes(part) && !onlyMore(part)) };
}

/** Readings of both, in order of time. */
function joinedReadings(here: SystemRecord, there: SystemRecord, { which, once }: MergeChoices): Reading[] {
  const theirs = byId(there.readings);
  const own = here.readings.flatMap((reading): Reading[] => {
    const other = theirs.get(reading.id);
    if (!other) return [reading];
    if (saysTheSame(reading, other)) return [newerOf([reading, other]) === 'there' ? other : reading];
    const said = which?.([reading, other]);
    return standing([reading, other], said ?? newerOf([reading, other]), said !== undefined);
  });
  const all = [...own, ...onlyIn(there.readings, here.readings)].map((reading) => ({
    ...reading,
    systemId: here.system.id,
    counts: reading.counts && !once?.has(reading.id),
  }));
  // A twin that came along by itself and one made here are the same.
  return [...byId(all).values()].sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
}

/** Whether a part that is a list holds all of the other's list, as it stood there. */
function everyIn(system: System, other: System, part: SystemPart): boolean {
  const holds = <T extends { readonly id: string }>(list: readonly T[], all: readonly T[]): boolean => {
    const known = byId(list);
    return all.every((one) => same(known.get(one.id), one));
  };
  if (part === 'cartridges') return holds(system.cartridges, other.cartridges);
  if (part === 'services') return holds(system.services, other.services);
  if (part === 'upkeep')
    return (
      holds(system.upkeep, other.upkeep) &&
      holds(system.tasks, other.tasks) &&
      holds(system.away, other.away) &&
      system.orderDays === other.orderDays
    );
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
