import type { Due, ToBring } from '@yes-clear/core/log';
import { computed, type ComputedRef, type Ref } from 'vue';
import { daysBetween, endOfDayIn, longDay, shortDay } from '../time/dates';
import type { RoundLine } from './useRounds';

/** A piece of work of one of the systems. */
export interface DueItem extends Due {
  readonly systemId: string;
  readonly system: string;
  readonly site: string;
  readonly late: boolean;
  readonly day: string;
}

/** A piece to load into the van, with how many and where they go. */
export interface LoadItem extends ToBring {
  readonly for: readonly string[];
}

/** Everything due of every system within some days, the soonest first. */
export function useDue(
  lines: Readonly<Ref<readonly RoundLine[]>>,
  clock: Readonly<Ref<Date>>,
  days: Readonly<Ref<number>>,
): ComputedRef<readonly DueItem[]> {
  /** What a line asks for, worked out once: a line that says what it said is the same object. */
  let known = new Map<RoundLine, readonly DueItem[]>();
  let knownFor = '';
  return computed(() => {
    const last = endOfDayIn(days.value, clock.value);
    const before = knownFor === last ? known : new Map<RoundLine, readonly DueItem[]>();
    known = new Map(lines.value.map((line) => [line, before.get(line) ?? dueOfLine(line, clock.value, last)]));
    knownFor = last;
    return [...known.values()].flat().sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0));
  });
}

function dueOfLine(line: RoundLine, now: Date, last: string): DueItem[] {
  return (line.round?.due ?? [])
    .filter(({ at }) => at <= last)
    .map((due): DueItem => {
      const late = daysBetween(now, due.at) < 0;
      return { ...due, systemId: line.id, system: line.name, site: line.site, late, day: late ? 'overdue' : shortDay(due.at) };
    });
}

/** Work by its day: what is late first, then day by day. */
export function byDay(
  items: readonly DueItem[],
): readonly { readonly day: string; readonly late: boolean; readonly items: readonly DueItem[] }[] {
  const days = new Map<string, DueItem[]>();
  for (const item of items) {
    const day = item.late ? 'Overdue' : longDay(item.at);
    days.set(day, [...(days.get(day) ?? []), item]);
  }
  return [...days].map(([day, own]) => ({ day, late: own[0]!.late, items: own }));
}

/** What work asks to be brought, the same piece for several systems on one line. */
export function toLoad(items: readonly DueItem[]): LoadItem[] {
  const found = new Map<string, LoadItem>();
  for (const { bring, system } of items)
    for (const piece of bring) {
      const known = found.get(piece.part);
      found.set(piece.part, {
        ...piece,
        count: piece.count + (known?.count ?? 0),
        for: [...new Set([...(known?.for ?? []), system])],
      });
    }
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}
