import { allStages, mapStages, membraneStage, type Service, type System } from '../file';
import { kindOf, type ServiceWork, type Stage, type StageOf, type TrainUse } from '../stage';

/** Work on a part or a meter as somebody enters it. */
export interface ServiceDone {
  readonly id: string;
  /** Instant of the work. */
  readonly at: string;
  readonly stageId: string | null;
  readonly instrumentId: string | null;
  /** A task of one's own, where that was done. */
  readonly taskId?: string;
  readonly work: ServiceWork;
  readonly why: Service['why'];
  readonly note: string;
}

/** Work as it is called. */
export const WORK_WORDS: Readonly<Record<ServiceWork, string>> = {
  changed: 'new one fitted',
  movedUp: 'next one moved up',
  cleaned: 'cleaned',
  rinsed: 'rinsed',
  refilled: 'filled up',
  flushed: 'flushed',
  regenerated: 'regenerated',
  battery: 'new battery',
  compared: 'compared with another',
  adjusted: 'adjusted, reseated',
  task: 'done',
};

/** What work was done on, as it is called now; the system where it is neither a part nor a meter of it. */
export const workedOn = (
  { train, instruments, name }: Pick<System, 'train' | 'instruments' | 'name'>,
  { stageId, instrumentId }: Pick<Service, 'stageId' | 'instrumentId'>,
): string => allStages(train).find(({ id }) => id === stageId)?.name ?? instruments.find(({ id }) => id === instrumentId)?.name ?? name;

/** A bed that may move up: carbon or resin. */
type Bed = StageOf<'carbon'> | StageOf<'resin'>;

/** Beds behind a stage in one row, nearest first, that can move up; empty where none do. */
export function behindInRow({ train: { stages } }: Pick<System, 'train'>, { id, kind }: Stage): readonly Bed[] {
  if (kind !== 'carbon' && kind !== 'resin') return [];
  const row: Bed[] = [];
  for (const stage of stages.slice(stages.findIndex((one) => one.id === id) + 1)) {
    if (stage.kind !== kind) break;
    row.push(stage);
  }
  return row;
}

/**
 * A row of beds after its first was removed and the others moved up: each brings what it has behind it to the place
 * before, and a new one is last. A bed of resin is known by its vessel, so its name goes with it.
 */
function movedUp(row: readonly Bed[], day: string): Bed[] {
  const [first] = row;
  return row.map((place, i): Bed => {
    const next = row[i + 1];
    const kept = (bed: Bed): string => (bed.kind === 'resin' ? bed.name : place.name);
    if (next) return { ...next, id: place.id, name: kept(next) };
    return { ...(kindOf<Stage>(place).renewed(place) as Bed), name: kept(first!), fittedOn: day };
  });
}

/** Works that put a new piece in the place of the old one. */
const RENEWS: ReadonlySet<ServiceWork> = new Set(['changed']);

/**
 * A system after a piece of work was done on it: the work is written down with what the old piece had behind it; a part
 * that was changed counts anew from that day, a meter that was cleaned or compared from that day too.
 *
 * @param use what each stage has been through, as the log has it
 */
export function serviced(system: System, done: ServiceDone, use: TrainUse): System {
  const stage = allStages(system.train).find(({ id }) => id === done.stageId);
  const instrument = system.instruments.find(({ id }) => id === done.instrumentId);
  const day = done.at.slice(0, 10);
  const service: Service = {
    ...done,
    taskId: done.taskId ?? null,
    name: system.tasks.find(({ id }) => id === done.taskId)?.says ?? workedOn(system, done),
    fittedOn: stage && 'fittedOn' in stage ? fittedBefore(system, stage, day) : (instrument?.calibratedOn ?? null),
    passedL: (stage && use[stage.id]?.passedL) ?? null,
  };
  const services = inOrderOfTime([...system.services, service], service);
  const behind = stage && done.work === 'movedUp' ? behindInRow(system, stage) : [];
  // Written down late, what came after it stays.
  const moves = behind.length > 0 && newer(day, behind.at(-1)!.fittedOn) ? movedUp([stage as Bed, ...behind], day) : [];
  const renewed = (one: Stage): Stage => {
    if (!('fittedOn' in one)) return one;
    const moved = moves.find(({ id }) => id === one.id);
    if (moved) return moved;
    const isNew = one.id === done.stageId && RENEWS.has(done.work);
    return isNew && newer(day, one.fittedOn) ? { ...kindOf(one).renewed(one), fittedOn: day } : one;
  };
  const checked = done.work === 'cleaned' || done.work === 'compared';
  return {
    ...system,
    services,
    instruments: system.instruments.map((one) =>
      one.id === done.instrumentId && checked && newer(day, one.calibratedOn) ? { ...one, calibratedOn: day } : one,
    ),
    train: mapStages(system.train, renewed),
  };
}

/** Since when what stood at a stage on a day had been in: as the work on it tells, whatever was fitted since; null where nothing does. */
export function fittedBefore({ services }: Pick<System, 'services'>, stage: Stage, day: string): string | null {
  const own = services.filter(({ stageId, work }) => stageId === stage.id && (work === 'changed' || work === 'movedUp'));
  const last = own.findLast(({ at }) => at.slice(0, 10) < day);
  const stands = 'fittedOn' in stage ? stage.fittedOn : null;
  // The bed that moved up was in before: the stage as it stands, or the next work on it, knows since when.
  const since = last?.work === 'changed' ? last.at.slice(0, 10) : null;
  if (since !== null) return since;
  const next = own.find(({ at }) => at.slice(0, 10) >= day);
  return [next?.fittedOn ?? null, next ? null : stands].find((one) => one !== null && one <= day) ?? null;
}

/** Work in order of time; what came out at the next change had been in since the one that was put between. */
function inOrderOfTime(services: readonly Service[], added: Service): Service[] {
  const sorted = [...services].sort((a, b) => a.at.localeCompare(b.at));
  if (added.work !== 'changed' || added.stageId === null) return sorted;
  const next = sorted.findIndex(
    (one, i) => i > sorted.indexOf(added) && one.stageId === added.stageId && (one.work === 'changed' || one.work === 'movedUp'),
  );
  return sorted.map((one, i) => (i === next ? { ...one, fittedOn: added.at.slice(0, 10), passedL: null } : one));
}

/** Whether a day is not before another: work written down late changes nothing of what came after it. */
const newer = (day: string, than: string | null): boolean => than === null || day >= than;

/** The day from which a stage's litres count: it was fitted, or regenerated since; null where nobody knows. */
export function countsSince(system: System, stage: Stage): string | null {
  const fitted = 'fittedOn' in stage ? stage.fittedOn : null;
  const done = lastDone(system, { stageId: stage.id }, ['regenerated'])?.slice(0, 10) ?? null;
  return fitted !== null && done !== null && done > fitted ? done : fitted;
}

/** When a piece of work was done last on a stage or a meter; null where nobody wrote it down. */
export const lastDone = (
  system: System,
  of: { readonly stageId?: string; readonly instrumentId?: string },
  works: readonly ServiceWork[],
): string | null =>
  system.services.findLast(
    ({ stageId, instrumentId, work }) =>
      works.includes(work) && (of.stageId === undefined ? instrumentId === of.instrumentId : stageId === of.stageId),
  )?.at ?? null;

/** What can be done on a stage: changing it, what its own upkeep asks for, and what a membrane or a vessel is cleaned by. */
export function worksOn(system: System, stage: Stage): readonly ServiceWork[] {
  const own = kindOf(stage)
    .upkeep(stage, null)
    .map(({ work }) => work);
  const isMembrane = stage.id === membraneStage(system.train.stages)?.id;
  return [
    ...new Set<ServiceWork>([
      ...('fittedOn' in stage ? (['changed'] as const) : []),
      ...(behindInRow(system, stage).length > 0 ? (['movedUp'] as const) : []),
      ...own,
      ...(isMembrane ? (['cleaned', 'flushed', 'adjusted'] as const) : (['cleaned', 'adjusted'] as const)),
    ]),
  ];
}
