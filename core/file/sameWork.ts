import { DAY_MS } from '../quantity';
import type { Stage } from '../stage';
import type { Service } from './schema';
import { onlyIn, union } from './union';

/** Work that two keepers wrote down each: the same part and the same work within a day are one, within three are asked about (science of logs, 11). */
const SAME_DAYS = 1;
const MAYBE_DAYS = 3;

type WorkAt = Pick<Service, 'at' | 'work' | 'stageId' | 'instrumentId' | 'taskId'>;

/** Days between two pieces of work on the same part or meter; null where they are of different kinds or parts. */
function daysApart(one: WorkAt, other: WorkAt): number | null {
  const isOfOne =
    one.work === other.work && one.stageId === other.stageId && one.instrumentId === other.instrumentId && one.taskId === other.taskId;
  return isOfOne ? Math.abs(Date.parse(one.at) - Date.parse(other.at)) / DAY_MS : null;
}

/** Whether two pieces of work are one, written down twice. */
export function isSameWork(one: WorkAt, other: WorkAt): boolean {
  const days = daysApart(one, other);
  return days !== null && days <= SAME_DAYS;
}

const isFirst = (one: Service, other: Service): boolean =>
  one.at === other.at ? one.id <= other.id : Date.parse(one.at) < Date.parse(other.at);

/** Pairs of pieces of work, one of either copy, that may be one: near enough in time to be asked about. */
export function likelySameWork(here: readonly Service[], there: readonly Service[]): (readonly [Service, Service])[] {
  const theirs = onlyIn(there, here);
  return onlyIn(here, there).flatMap((one) => {
    const found = theirs.find((other) => {
      const days = daysApart(one, other);
      return days !== null && days > SAME_DAYS && days <= MAYBE_DAYS;
    });
    return found ? [[one, found] as const] : [];
  });
}

/** Work of two copies, once each, and pairs that were one: [which stays, which goes]. */
export function bothServices(
  first: readonly Service[],
  then: readonly Service[],
  isOneWork: (one: Service, other: Service) => boolean = () => false,
): { readonly services: Service[]; readonly twice: readonly (readonly [Service, Service])[] } {
  const theirs = onlyIn(then, first);
  const twice: [Service, Service][] = [];
  for (const one of onlyIn(first, then)) {
    const other = theirs.find((candidate) => {
      const days = daysApart(one, candidate);
      if (days === null || twice.some((pair) => pair.includes(candidate))) return false;
      return isSameWork(one, candidate) || (days <= MAYBE_DAYS && (isOneWork(one, candidate) || isOneWork(candidate, one)));
    });
    if (other) twice.push(isFirst(one, other) ? [one, other] : [other, one]);
  }
  const goes = new Set(twice.map(([, { id }]) => id));
  const stays = new Map(twice.map(([kept, gone]) => [kept.id, { ...kept, ...saidByEither(kept, gone) }]));
  const services = union(first, then)
    .filter(({ id }) => !goes.has(id))
    .map((one) => stays.get(one.id) ?? one)
    .sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
  return { services, twice };
}

/** What the one that stays leaves open and the other says. */
const saidByEither = (kept: Service, gone: Service): Partial<Service> => ({
  why: kept.why === 'notSaid' ? gone.why : kept.why,
  note: [...new Set([kept.note, gone.note])].filter(Boolean).join(' · ').slice(0, LONGEST_NOTE),
  passedL: kept.passedL ?? gone.passedL,
});
const LONGEST_NOTE = 500;

/**
 * A stage of one copy, with the day its part stands since by the work that is left: where the change that gave it that day
 * was removed, or was the same as one written down for another day, the newest change left counts, or what stood before.
 *
 * @param own work of the copy the stage is of
 * @param left work of both copies that stands
 */
export function fittedByWork(stage: Stage, own: readonly Service[], left: readonly Service[]): Stage {
  if (!('fittedOn' in stage) || stage.fittedOn === null) return stage;
  const dayOf = ({ at }: Service): string => at.slice(0, 10);
  const changes = (list: readonly Service[]): Service[] => list.filter(({ stageId, work }) => stageId === stage.id && work === 'changed');
  const standing = new Set(left.map(({ id }) => id));
  const by = changes(own).find((one) => dayOf(one) === stage.fittedOn);
  const stay = changes(left);
  if (!by || standing.has(by.id) || stay.some((one) => dayOf(one) === stage.fittedOn)) return stage;
  return { ...stage, fittedOn: stay.map(dayOf).sort().at(-1) ?? by.fittedOn };
}
