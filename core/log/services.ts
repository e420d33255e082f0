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

/** The carbon that stands behind another in one row, so that it can move up; null where none does. */
export function nextCarbon({ train: { stages } }: Pick<System, 'train'>, { id, kind }: Stage): StageOf<'carbon'> | null {
  const next = stages[stages.findIndex((one) => one.id === id) + 1];
  return kind === 'carbon' && next?.kind === 'carbon' ? next : null;
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
    name: system.tasks.find(({ id }) => id === done.taskId)?.says ?? stage?.name ?? instrument?.name ?? system.name,
    fittedOn: stage && 'fittedOn' in stage ? stage.fittedOn : (instrument?.calibratedOn ?? null),
    passedL: (stage && use[stage.id]?.passedL) ?? null,
  };
  const services = [...system.services, service].sort((a, b) => a.at.localeCompare(b.at));
  const next = stage && done.work === 'movedUp' ? nextCarbon(system, stage) : null;
  const renewed = (one: Stage): Stage => {
    if (!('fittedOn' in one)) return one;
    // The second stands first from now on, with the days it has behind it; a new one stands second.
    if (next && one.id === done.stageId) return { ...next, id: one.id, name: one.name };
    const isNew = (one.id === done.stageId && RENEWS.has(done.work)) || one.id === next?.id;
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
      ...(nextCarbon(system, stage) ? (['movedUp'] as const) : []),
      ...own,
      ...(isMembrane ? (['cleaned', 'flushed', 'adjusted'] as const) : (['cleaned', 'adjusted'] as const)),
    ]),
  ];
}
