import { allStages, type System } from '../file';
import { bringFor, type ToBring } from '../log';
import { SERVICE_WORK } from '../stage';
import { BROUGHT_LINES, MONTH_DAYS } from './simulate';
import type { Outlook } from './outlook';

/** The van's year: what the coming year of many systems asks of one van, month by month. */

/** One system's share of it: small enough for hundreds. */
export interface VanShare {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly currency: string;
  readonly startMs: number;
  readonly visits: readonly { readonly day: number; readonly what: readonly string[]; readonly bring: readonly ToBring[] }[];
  /** Cost of each month from the start, what water and power take left out: the van does not bring them. */
  readonly monthly: readonly number[];
}

/** What a part of the outlook is made of: its stage, and the work done on it. */
function bringOf(system: System, part: string): ToBring[] {
  const [stageId, named] = part.split(' ');
  const stages = allStages(system.train);
  const stage = stages.find(({ id }) => id === stageId);
  if (!stage) return [];
  const work = SERVICE_WORK.find((one) => one === named) ?? 'changed';
  return bringFor(system, stage, work);
}

/** A system's share of the van's year. */
export function vanShare(system: System, { run, names, startMs }: Outlook): VanShare {
  const named = new Map(names);
  return {
    id: system.id,
    name: system.name,
    site: system.site,
    currency: system.prices.currency,
    startMs,
    visits: run.events.map(({ day, parts }) => ({
      day,
      what: parts.map((part) => named.get(part) ?? part),
      bring: parts.flatMap((part) => bringOf(system, part)),
    })),
    monthly: run.monthly.map((month) => BROUGHT_LINES.reduce((sum, line) => sum + month[line], 0)),
  };
}

/** How long it takes to come, and to change one thing, minutes (our estimate, to be set). */
export interface VanPace {
  readonly minutesToCome: number;
  readonly minutesAChange: number;
}
export const USUAL_PACE: VanPace = { minutesToCome: 45, minutesAChange: 15 };

export interface VanMonth {
  /** Months from the start. */
  readonly month: number;
  /** Stops: systems of one site within a few days are one. */
  readonly stops: readonly { readonly site: string; readonly day: number; readonly systems: readonly string[]; readonly changes: number }[];
  readonly hours: number;
  readonly order: readonly ToBring[];
  /** By currency. */
  readonly costs: readonly (readonly [currency: string, amount: number])[];
}
/** Work at one site within so many days is one stop. */
const ONE_STOP_DAYS = 3;
const MONTHS = 12;

/** The year of all of them together. */
export function vanYear(shares: readonly VanShare[], pace: VanPace): VanMonth[] {
  const visits = shares
    .flatMap((share) => share.visits.map((visit) => ({ ...visit, share })))
    .sort((a, b) => a.day - b.day || a.share.id.localeCompare(b.share.id));
  const stops: { site: string; day: number; systems: string[]; changes: number; bring: ToBring[] }[] = [];
  for (const { day, share, what, bring } of visits) {
    const near = stops.findLast((stop) => stop.site === share.site && day - stop.day <= ONE_STOP_DAYS);
    const stop = near ?? { site: share.site, day, systems: [], changes: 0, bring: [] };
    if (!near) stops.push(stop);
    if (!stop.systems.includes(share.name)) stop.systems.push(share.name);
    stop.changes += what.length;
    stop.bring.push(...bring);
  }
  return Array.from({ length: MONTHS }, (_, month): VanMonth => {
    const own = stops.filter(({ day }) => Math.min(MONTHS - 1, Math.floor(day / MONTH_DAYS)) === month);
    const order = new Map<string, ToBring>();
    for (const piece of own.flatMap(({ bring }) => bring)) {
      const known = order.get(piece.part);
      order.set(piece.part, known ? { ...known, count: known.count + piece.count } : piece);
    }
    const costs = new Map<string, number>();
    for (const { currency, monthly } of shares) costs.set(currency, (costs.get(currency) ?? 0) + (monthly[month] ?? 0));
    return {
      month,
      stops: own.map(({ site, day, systems, changes }) => ({ site, day, systems, changes })),
      hours: own.reduce((sum, { changes }) => sum + pace.minutesToCome + changes * pace.minutesAChange, 0) / 60,
      order: [...order.values()].sort((a, b) => a.name.localeCompare(b.name)),
      costs: [...costs].filter(([, amount]) => amount >= 0.5),
    };
  });
}
