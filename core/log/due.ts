import { allStages, awaySince, membraneStage, PRESERVED_DAYS, type System, type UpkeepRule } from '../file';
import { isSmallElement, SPENT_WATER_FACTOR } from '../membrane';
import { DAY_MS, dayAndYear, inSentence } from '../quantity';
import { kindOf, part, type ServiceWork, type Stage, type Upkeep } from '../stage';
import { priceList } from '../ledger';
import { bringsNew, membraneLife, upkeepOf, yearStandings, type DaysBand } from '../life';
import { crossing } from './crossing';
import { dateAfter } from './dates';
import { OUTPUT_LIMITS } from './membraneFindings';
import { lastDone } from './services';
import type { Standing } from './standing';

/** What is to be done, when, and why then. */
export interface Due {
  /** The same for the same piece of work, whenever it falls due. */
  readonly id: string;
  readonly at: string;
  /** What is to be done, and the same with the name of the system before it. */
  readonly what: string;
  readonly says: string;
  /** What sets the date: its litres, its months, the forecast, a rule of this system. */
  readonly because: string;
  /** The stage or meter it is about, and what it is written down as. */
  readonly stageId: string | null;
  readonly instrumentId: string | null;
  readonly work: ServiceWork;
  /** How often it comes round again by the calendar, days; null for what does not. */
  readonly everyDays: number | null;
  /** What is fitted or filled in then: to be in the van. */
  readonly bring: readonly ToBring[];
  /** The day by which it is to be ordered; null where nothing is, or nobody said how long that takes. */
  readonly orderBy: string | null;
}

/** A piece to bring along, by what it is, with how many. */
export interface ToBring {
  readonly part: string;
  readonly name: string;
  readonly count: number;
  readonly unit: 'piece' | 'L' | 'kg' | 'm';
}

/** What a stage takes when it is changed or filled up: what wears, and what fills it. */
export function bringFor(system: System, stage: Stage, work: ServiceWork): ToBring[] {
  if (!bringsNew(work)) return [];
  return kindOf(stage)
    .parts(stage, { prices: priceList(system), units: system.units })
    .map((entry) => part(entry))
    .filter(({ wearsDays, unit }) => wearsDays !== null || unit !== 'piece')
    .map(({ part: id, name, count, unit }) => ({ part: id, name, count, unit }));
}

/** Beyond ten years nothing is planned: water with next to no chlorine would ask for centuries. */
const FARTHEST_DAYS = 3650;
/** A meter's tips are cleaned, its battery looked at, and it is set beside another twice a year (common practice). */
const METER_DAYS = 182;

/** What is to be done and when: by the calendar, by litres, or by the forecast, whichever comes first. */
export function dueOf(system: System, standing: Standing, now: string): Due[] {
  const away = awaySince(system);
  const due = away === null ? dueInService(system, standing, now) : [...storageDue(system, away), ...tasksDue(system)];
  return due.map((one) => ({ ...one, says: `${system.name}: ${one.what}`, orderBy: orderBy(system, one) }));
}

/** What a system in service asks for. */
function dueInService(system: System, standing: Standing, now: string): DueHere[] {
  return [
    ...resinDue(system, standing, now),
    ...membraneDue(system, standing, now),
    ...upkeepDue(system, standing, now),
    ...metersDue(system),
    ...tasksDue(system),
  ];
}

/** What one that is put away asks for: its preservative, and nothing that goes by litres or days in service. */
function storageDue(system: System, since: string): DueHere[] {
  const membrane = membraneStage(system.train.stages);
  if (!membrane) return [];
  const last = lastDone(system, { stageId: membrane.id }, ['refilled']);
  const from = last !== null && last > since ? last : since;
  return [
    {
      id: `${membrane.id}-preservative`,
      at: dateAfter(from, PRESERVED_DAYS),
      what: 'renew the preservative, or bring it back',
      because: `put away on ${dayAndYear(since)}; it keeps ${PRESERVED_DAYS} days`,
      stageId: membrane.id,
      instrumentId: null,
      work: 'refilled',
      everyDays: PRESERVED_DAYS,
      bring: [{ part: 'preservative', name: 'Preservative for the membrane', count: 1, unit: 'piece' }],
    },
  ];
}

/** What is brought takes days to come: the last day to order it. */
const orderBy = ({ orderDays }: System, { at, bring }: Pick<Due, 'at' | 'bring'>): string | null =>
  orderDays === null || bring.length === 0 ? null : dateAfter(at, -orderDays);

/** A piece of work before the name of its system is put to it. */
type DueHere = Omit<Due, 'says' | 'orderBy'>;

function resinDue(system: System, { tracking }: Standing, now: string): DueHere[] {
  if (!tracking?.daysLeft) return [];
  const { stageId, name, limiting, daysLeft } = tracking;
  const stage = allStages(system.train).find(({ id }) => id === stageId);
  const due = {
    id: `${stageId}-resin`,
    at: dateAfter(now, daysLeft.p10),
    stageId,
    instrumentId: null,
    work: 'changed' as const,
    everyDays: null,
    bring: stage ? bringFor(system, stage, 'changed') : [],
  };
  return [{ ...due, what: 'have resin ready', because: `${inSentence(name)}, the ${limiting} side, spent then at the earliest` }];
}

/** Days the membrane has left by its course in the log: until it is spent. */
export function membraneSeen({ membrane }: Pick<Standing, 'membrane'>, now: string): DaysBand | null {
  if (!membrane?.water || membrane.water.count < LEAST_READINGS) return null;
  return crossing(membrane.water, Math.log(SPENT_WATER_FACTOR), Date.parse(now));
}
/** Readings before a course speaks of a date. */
const LEAST_READINGS = 3;

/** A membrane is cleaned alkaline, then acid (common practice). */
const CLEANERS: readonly ToBring[] = [
  { part: 'cleaner-alkaline', name: 'Membrane cleaner, alkaline', count: 1, unit: 'piece' },
  { part: 'cleaner-acid', name: 'Membrane cleaner, acid', count: 1, unit: 'piece' },
];

/** The membrane: when it is to be replaced, and, of those that are cleaned, when its course asks for that. */
function membraneDue(system: System, standing: Standing, now: string): DueHere[] {
  const life = membraneLife(system.train, standing.use, membraneSeen(standing, now));
  if (!life) return [];
  const { stage, left, by } = life;
  const base = { stageId: stage.id, instrumentId: null, everyDays: null };
  const { membrane } = standing;
  const dirty =
    membrane?.water && membrane.water.count >= LEAST_READINGS && !isSmallElement(stage.elementClass)
      ? crossing(membrane.water, Math.log(OUTPUT_LIMITS.clean), Date.parse(now))
      : null;
  const clean: DueHere[] =
    dirty?.p50 == null
      ? []
      : [
          {
            ...base,
            id: `${stage.id}-output`,
            at: dateAfter(now, dirty.p50),
            what: `clean ${inSentence(stage.name)}`,
            because: `its output reaches ${100 * OUTPUT_LIMITS.clean}% then, by the log`,
            work: 'cleaned',
            bring: CLEANERS,
          },
        ];
  if (left?.p50 == null) return clean;
  return [
    ...clean,
    {
      ...base,
      id: `${stage.id}-changed`,
      at: dateAfter(now, left.p50),
      what: `replace ${inSentence(stage.name)}`,
      because: by === 'log' ? `its output reaches ${100 * SPENT_WATER_FACTOR}% then, by the log` : 'by its age; the log does not tell yet',
      work: 'changed',
      bring: bringFor(system, stage, 'changed'),
    },
  ];
}

/** A piece of upkeep with what sets its date: the kind's own word, and the rule of this system in its place. */
export interface UpkeepRow {
  readonly stageId: string;
  readonly name: string;
  /** What is done, as the kind calls it. */
  readonly says: string;
  /** Id of what falls due by it, see `Due`. */
  readonly dueId: string;
  /** Days and litres by the kind's own word; null where it sets none. */
  readonly days: number | null;
  readonly litres: number | null;
  readonly rule: UpkeepRule | null;
}

/** Upkeep of every part that is fitted, to be looked at and to be set otherwise. */
export function upkeepRows(system: System, report: Standing['report']): UpkeepRow[] {
  const standings = new Map(yearStandings(system, report).map((standing) => [standing.stage.id, standing]));
  return allStages(system.train).flatMap((stage) => {
    if (!('fittedOn' in stage) || stage.fittedOn === null) return [];
    return kindOf<Stage>(stage)
      .upkeep(stage, standings.get(stage.id) ?? null)
      .map((own) => ({
        stageId: stage.id,
        name: stage.name,
        says: own.says,
        dueId: `${stage.id}-${own.work}`,
        days: own.everyDays ?? own.afterDays ?? null,
        litres: own.litresNew ?? null,
        rule: upkeepOf(system, stage, own).rule,
      }));
  });
}

function upkeepDue(system: System, { report, use }: Standing, now: string): DueHere[] {
  const standings = new Map(yearStandings(system, report).map((standing) => [standing.stage.id, standing]));
  return allStages(system.train).flatMap((stage): DueHere[] => {
    if (!('fittedOn' in stage) || stage.fittedOn === null) return [];
    const fitted = `${stage.fittedOn}T00:00:00Z`;
    const standing = standings.get(stage.id) ?? null;
    return kindOf<Stage>(stage)
      .upkeep(stage, standing)
      .flatMap((own): DueHere[] => {
        const { upkeep, rule } = upkeepOf(system, stage, own);
        const since = upkeep.everyDays === undefined ? fitted : (lastDone(system, { stageId: stage.id }, [own.work]) ?? fitted);
        // What a kind does not count for itself goes by the litres since it was fitted.
        const total = rule?.litres ?? (upkeep.litresLeft === undefined ? upkeep.litresNew : undefined);
        const left = total === undefined ? {} : { litresLeft: Math.max(0, total - (use[stage.id]?.passedL ?? 0)) };
        const found = dueAt({ ...upkeep, ...left }, since, standing?.litresPerDay ?? 0, now);
        if (!found) return [];
        return [
          {
            id: `${stage.id}-${own.work}`,
            at: found.at,
            what: `${own.says} ${inSentence(stage.name)}`,
            because: `${found.by}${rule ? `, by this system’s own rule${rule.reason === '' ? '' : `: ${rule.reason}`}` : ''}`,
            stageId: stage.id,
            instrumentId: null,
            work: own.work,
            everyDays: upkeep.everyDays ?? null,
            bring: bringFor(system, stage, own.work),
          },
        ];
      });
  });
}

/** When a piece of upkeep is due next and what sets it; null where nothing tells. */
function dueAt(
  { afterDays, everyDays, litresLeft }: Upkeep,
  since: string,
  litresPerDay: number,
  now: string,
): { readonly at: string; readonly by: string } | null {
  const daysLeft = litresLeft !== undefined && litresPerDay > 0 ? litresLeft / litresPerDay : Infinity;
  const dates = [
    ...(daysLeft < FARTHEST_DAYS ? [{ at: dateAfter(now, daysLeft), by: 'by the litres through it' }] : []),
    ...(afterDays === undefined ? [] : [{ at: dateAfter(since, afterDays), by: `${Math.round(afterDays)} days after it was fitted` }]),
    ...(everyDays === undefined
      ? []
      : [{ at: dateAfter(since, turns(since, now, everyDays) * everyDays), by: `every ${Math.round(everyDays)} days` }]),
  ];
  return dates.sort((a, b) => a.at.localeCompare(b.at))[0] ?? null;
}

/** Which turn of a thing that comes round again is next, counted from the day of fitting or the last time it was done. */
const turns = (since: string, now: string, everyDays: number): number =>
  Math.max(1, Math.ceil((Date.parse(now) - Date.parse(since)) / DAY_MS / everyDays));

/** Tasks of one's own that come round by the calendar, counted from the last time; late until they are done. */
function tasksDue(system: System): DueHere[] {
  return system.tasks.flatMap((task): DueHere[] => {
    if (task.everyDays === null) return [];
    const stage = allStages(system.train).find(({ id }) => id === task.stageId);
    const last = system.services.findLast(({ taskId }) => taskId === task.id)?.at ?? `${task.since}T00:00:00Z`;
    return [
      {
        id: `task-${task.id}`,
        at: dateAfter(last, task.everyDays),
        what: inSentence(task.says),
        because: `your own task${stage ? ` at ${inSentence(stage.name)}` : ''}, ${task.everyDays === 1 ? 'every day' : `every ${Math.round(task.everyDays)} days`}`,
        stageId: task.stageId,
        instrumentId: null,
        work: 'task',
        everyDays: task.everyDays,
        bring: [],
      },
    ];
  });
}

/** Meters that stand at a probe: cleaned, looked after and compared, counted from the last time or from the day the system began. */
function metersDue(system: System): DueHere[] {
  const used = new Set(system.train.probes.map(({ instrumentId }) => instrumentId));
  return system.instruments.flatMap((instrument): DueHere[] => {
    if (!used.has(instrument.id)) return [];
    const last = lastDone(system, { instrumentId: instrument.id }, ['cleaned', 'compared']);
    const since = [last, instrument.calibratedOn && `${instrument.calibratedOn}T00:00:00Z`, system.createdAt]
      .filter((at): at is string => at !== null)
      .sort((a, b) => Date.parse(a) - Date.parse(b))
      .at(-1)!;
    return [
      {
        id: `${instrument.id}-meter`,
        at: dateAfter(since, METER_DAYS),
        what: `clean the tips of ${inSentence(instrument.name)}, compare it with another`,
        because: 'twice a year',
        stageId: null,
        instrumentId: instrument.id,
        work: 'compared',
        everyDays: METER_DAYS,
        bring: [],
      },
    ];
  });
}
