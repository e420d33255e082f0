/** Counters that fill through the days, each part changed when the first of its own is full: exact within the day. */

/** What fills a counter. */
export type CounterUnit = 'days' | 'feedL' | 'productL' | 'meq';
export type Rates = Readonly<Record<CounterUnit, number>>;

export interface CountedPart {
  readonly id: string;
  /** Whichever comes first. */
  readonly limits: readonly { readonly unit: CounterUnit; readonly limit: number }[];
  /** What one change takes off its counters, where it is less than all: the first of beds in a row. */
  readonly renews?: number;
  /** Day of its first change, where the log of the one that runs tells it; its counters count from there on. */
  readonly firstDue?: number;
}
/** How full a part's counters are, in the order of its limits. */
export type Fill = number[];

/** A change of parts on one visit. */
export interface ChangeEvent {
  /** Days from the start. */
  readonly day: number;
  readonly parts: readonly string[];
  /** The day each of them would have been due by itself: later where it is changed along with another. */
  readonly due: readonly number[];
}

/** Days until a part is full at rates a day; 0 where it is over its limit already. */
export function daysLeft({ limits }: CountedPart, fill: Fill, rates: Rates): number {
  let least = Infinity;
  limits.forEach(({ unit, limit }, i) => {
    const rate = rates[unit];
    const left = limit - fill[i]!;
    least = Math.min(least, left <= 0 ? 0 : rate > 0 ? left / rate : Infinity);
  });
  return least;
}

/** A change that comes so many days after it is due: when it was, once it was. */
export interface LateChange {
  readonly part: number;
  readonly days: number;
  dueAt: number | null;
  isMade: boolean;
}

/** A part that is full more often than this in a day has no limit worth the name. */
const MOST_A_DAY = 1000;

/**
 * Lets one day pass.
 *
 * @param fills counters of each part, changed in place
 * @param together also changes what falls due within so many days
 * @param late a change that comes late; noted in it when it was due and made
 * @param changed parts changed before: those whose counters count
 */
export function passDay(
  parts: readonly CountedPart[],
  fills: readonly Fill[],
  rates: Rates,
  day: number,
  together = 0,
  late: LateChange | null = null,
  changed: Set<string> = new Set(),
): ChangeEvent[] {
  const events: ChangeEvent[] = [];
  const pass = (step: number): void =>
    parts.forEach(({ limits }, i) => limits.forEach(({ unit }, k) => (fills[i]![k]! += rates[unit] * step)));
  let left = 1;
  const waitOf = (i: number): number => {
    const { firstDue, id } = parts[i]!;
    const own =
      firstDue !== undefined && !changed.has(id) ? Math.max(0, firstDue - (day + 1 - left)) : daysLeft(parts[i]!, fills[i]!, rates);
    if (!late || late.isMade || i !== late.part) return own;
    const at = day + 1 - left;
    if (late.dueAt === null && own < left) late.dueAt = at + own;
    return late.dueAt === null ? Infinity : Math.max(0, late.dueAt + late.days - at);
  };
  for (let count = 0; count <= MOST_A_DAY; count++) {
    const waits = parts.map((_, i) => waitOf(i));
    const next = Math.min(...waits);
    // What falls on the very end of a day is the next one's.
    if (!(next < left)) break;
    pass(next);
    left -= next;
    const now = parts.flatMap((_, i) => (waits[i]! - next <= together ? [i] : []));
    const at = day + 1 - left;
    for (const i of now) {
      const renewed = parts[i]!.firstDue !== undefined && !changed.has(parts[i]!.id) ? Infinity : (parts[i]!.renews ?? Infinity);
      fills[i]!.forEach((full, k) => (fills[i]![k] = Math.max(0, full - renewed)));
      changed.add(parts[i]!.id);
      if (late?.part === i && late.dueAt !== null) late.isMade = true;
    }
    events.push({ day: at, parts: now.map((i) => parts[i]!.id), due: now.map((i) => at + Math.max(0, waits[i]! - next)) });
  }
  pass(left);
  return events;
}
