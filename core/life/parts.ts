import { allStages, type System, type UpkeepRule } from '../file';
import { DAYS_PER_YEAR } from '../quantity';
import { kindOf, type ServiceWork, type Stage, type Upkeep } from '../stage';
import { membraneDays } from './membrane';
import type { ResinLife } from './resin';
import type { SolvedUse, StageStanding } from './standing';
import { allStandings } from './standing';
import type { TrainYear } from './trainYear';

/** How long every part of a system lasts: from one time to the next, by its litres or its days, whichever comes first. */

/** Days as a band: one in ten sooner, the middle, one in ten later; an end beyond what is looked at is null. */
export interface DaysBand {
  readonly p10: number;
  readonly p50: number | null;
  readonly p90: number | null;
}

/** Works for which something new is brought, and paid. */
const BRINGS: ReadonlySet<ServiceWork> = new Set(['changed', 'movedUp', 'refilled']);
export const bringsNew = (work: ServiceWork): boolean => BRINGS.has(work);

/** A kind's own upkeep, or the rule somebody set in its place. */
export function upkeepOf(
  system: Pick<System, 'upkeep'>,
  stage: Stage,
  own: Upkeep,
): { readonly upkeep: Upkeep; readonly rule: UpkeepRule | null } {
  const rule = system.upkeep.find(({ stageId, says }) => stageId === stage.id && says === own.says) ?? null;
  if (!rule) return { upkeep: own, rule };
  const { afterDays: _, everyDays, litresLeft: __, litresNew: ___, ...rest } = own;
  const days = rule.days === null ? {} : everyDays === undefined ? { afterDays: rule.days } : { everyDays: rule.days };
  return { upkeep: { ...rest, ...days, ...(rule.litres === null ? {} : { litresNew: rule.litres }) }, rule };
}

/** One piece of work that comes round, with what sets how often. */
export interface PartLife {
  readonly stage: Stage;
  readonly work: ServiceWork;
  /** What is done, as the kind calls it. */
  readonly says: string;
  readonly brings: boolean;
  /** How often its price is paid each time. */
  readonly takes: number;
  /** Litres through the stage from one time to the next; null where litres do not count. */
  readonly everyL: number | null;
  readonly litresPerDay: number;
  /** Days from one time to the next by the calendar; null where it sets nothing. */
  readonly everyDays: number | null;
  /** Days from one time to the next, by whichever comes first; null where nothing sets any. */
  readonly days: number | null;
  readonly setBy: 'litres' | 'days' | null;
  /** A rule of this system stands in place of the kind's. */
  readonly rule: UpkeepRule | null;
  /** Stages whose price is paid. */
  readonly pays: readonly Stage[];
}

/** How often in a year. */
export const timesPerYear = ({ days }: Pick<PartLife, 'days'>): number => (days === null ? 0 : DAYS_PER_YEAR / days);

function lifeOf(
  stage: Stage,
  upkeep: Pick<Upkeep, 'work' | 'says'> & Partial<Upkeep>,
  litresPerDay: number,
  rule: UpkeepRule | null,
  pays: readonly Stage[] = [stage],
): PartLife {
  const everyDays = upkeep.everyDays ?? upkeep.afterDays ?? null;
  const everyL = upkeep.litresNew ?? null;
  const byLitres = everyL !== null && litresPerDay > 0 ? everyL / litresPerDay : Infinity;
  const days = Math.min(byLitres, everyDays ?? Infinity);
  return {
    stage,
    work: upkeep.work,
    says: upkeep.says,
    brings: bringsNew(upkeep.work),
    takes: upkeep.takes ?? 1,
    everyL,
    litresPerDay,
    everyDays,
    days: Number.isFinite(days) ? Math.max(LEAST_DAYS, days) : null,
    setBy: Number.isFinite(days) ? (byLitres <= (everyDays ?? Infinity) ? 'litres' : 'days') : null,
    rule,
    pays,
  };
}
/** What is spent at once is told as a thousandth of a day: a figure, and no division by none. */
const LEAST_DAYS = 1e-3;

/** What the lives of a system's parts are worked out from. */
export interface LivesAsked extends SolvedUse {
  readonly year: TrainYear;
  readonly resin: ResinLife | null;
}

/** Every part's life, in the order of the train: one answer for all that ask. */
export function partLives(
  system: System,
  asked: LivesAsked,
  standings: readonly StageStanding[] = yearStandings(system, asked),
): PartLife[] {
  return standings.flatMap((standing) => [...own(system, standing), ...polishing(system, standing, asked), ...ofMembrane(standing)]);
}

/** Every stage where it stands, with the litres of a mean day of the year. */
export const yearStandings = (system: System, asked: SolvedUse & { readonly year: Pick<TrainYear, 'throughPerL'> }): StageStanding[] =>
  allStandings(system, { ...asked, throughPerL: asked.year.throughPerL });

function own(system: System, standing: StageStanding): PartLife[] {
  return kindOf(standing.stage)
    .upkeep(standing.stage, standing)
    .map((one) => {
      const { upkeep, rule } = upkeepOf(system, standing.stage, one);
      return lifeOf(standing.stage, upkeep, standing.litresPerDay, rule);
    });
}

/** The resin of a train: its first bed speaks for the row. */
function polishing(system: System, { stage }: StageStanding, { resin, demandLPerDay }: LivesAsked): PartLife[] {
  if (!resin || resin.change.stageIds[0] !== stage.id) return [];
  const { change } = resin;
  const pays = allStages(system.train).filter(({ id }) => change.stageIds.includes(id));
  const litres = change.everyL === null ? {} : { litresNew: change.everyL };
  const work = change.rotates ? ('movedUp' as const) : ('changed' as const);
  return [lifeOf(stage, { work, says: 'change', ...litres }, demandLPerDay, null, pays)];
}

function ofMembrane({ stage, litresPerDay }: StageStanding): PartLife[] {
  if (stage.kind !== 'membrane') return [];
  return [lifeOf(stage, { work: 'changed', says: 'replace', afterDays: membraneDays(stage.elementClass) }, litresPerDay, null)];
}
