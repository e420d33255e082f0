import { allStages, type System } from '../file';
import { inSentence } from '../quantity';
import { kindOf, type Stage, type Upkeep } from '../stage';
import { allStandings } from '../advice';
import { dateAfter } from './dates';
import type { Standing } from './standing';
import { DAY_MS } from './volume';

/** What is to be done, and when. */
export interface Due {
  readonly at: string;
  readonly says: string;
}

/** Beyond ten years nothing is planned: water with next to no chlorine would ask for centuries. */
const FARTHEST_DAYS = 3650;

/** What is to be done and when: by the calendar, by litres, or by the forecast, whichever comes first. */
export function dueOf(system: System, { report, tracking }: Standing, now: string): Due[] {
  const due: Due[] = [];
  if (tracking?.daysLeft) due.push({ at: dateAfter(now, tracking.daysLeft.p10), says: `${system.name}: have resin ready` });
  const standings = new Map(allStandings(system, report).map((standing) => [standing.stage.id, standing]));
  for (const stage of allStages(system.train)) {
    if (!('fittedOn' in stage) || stage.fittedOn === null) continue;
    const since = `${stage.fittedOn}T00:00:00Z`;
    const standing = standings.get(stage.id) ?? null;
    for (const upkeep of kindOf<Stage>(stage).upkeep(stage, standing)) {
      const at = dueAt(upkeep, since, standing?.litresPerDay ?? 0, now);
      if (at) due.push({ at, says: `${system.name}: ${upkeep.says} ${inSentence(stage.name)}` });
    }
  }
  return due;
}

/** When a piece of upkeep is due next; null where nothing tells. */
function dueAt({ afterDays, everyDays, litresLeft }: Upkeep, since: string, litresPerDay: number, now: string): string | null {
  const daysLeft = litresLeft !== undefined && litresPerDay > 0 ? litresLeft / litresPerDay : Infinity;
  const dates = [
    ...(daysLeft < FARTHEST_DAYS ? [dateAfter(now, daysLeft)] : []),
    ...(afterDays === undefined ? [] : [dateAfter(since, afterDays)]),
    ...(everyDays === undefined ? [] : [dateAfter(since, turns(since, now, everyDays) * everyDays)]),
  ];
  return dates.sort()[0] ?? null;
}

/** Which turn of a thing that comes round again is next, counted from the day of fitting. */
const turns = (since: string, now: string, everyDays: number): number =>
  Math.max(1, Math.ceil((Date.parse(now) - Date.parse(since)) / DAY_MS / everyDays));
