import { JOINED_LISTS, type Removal, type System } from './schema';

/**
 * What was taken away from a system, by list and id, with the last word on each: gone, or back again. Whoever joins two
 * copies (`merge.ts`) asks here, so that what one keeper removed does not come back from the other's copy.
 */

export type JoinedList = (typeof JOINED_LISTS)[number];
type Named = Pick<Removal, 'of' | 'id'>;

const key = ({ of, id }: Named): string => `${of} ${id}`;
/** As many as are kept; the oldest go first. */
const MOST = 50_000;

/** Of two words on one thing the later; of one instant, that it is gone. */
const isLater = (one: Removal, than: Removal): boolean => {
  const [a, b] = [Date.parse(one.at), Date.parse(than.at)];
  return a > b || (a === b && one.gone && !than.gone);
};

/** The words of two copies together: the last on each thing, oldest first. */
export function joinedRemovals(one: readonly Removal[], other: readonly Removal[]): Removal[] {
  const last = new Map<string, Removal>();
  for (const word of [...one, ...other]) {
    const known = last.get(key(word));
    if (!known || isLater(word, known)) last.set(key(word), word);
  }
  return [...last.values()].sort((a, b) => a.at.localeCompare(b.at) || key(a).localeCompare(key(b))).slice(-MOST);
}

/** Members that went, and members that came (back), as words of one instant; of what came only what had gone before. */
export function removalsAfter(
  before: readonly Removal[],
  { went, came, at }: { readonly went: readonly Named[]; readonly came: readonly Named[]; readonly at: string },
): Removal[] {
  const known = new Map(before.map((word) => [key(word), word]));
  const words = [
    ...went.filter((one) => !known.get(key(one))?.gone).map(({ of, id }): Removal => ({ of, id, at, gone: true })),
    ...came.filter((one) => known.get(key(one))?.gone).map(({ of, id }): Removal => ({ of, id, at, gone: false })),
  ];
  return words.length === 0 ? [...before] : joinedRemovals(before, words);
}

/** Whether a member is gone by the last word on it. */
export function goneBy(removed: readonly Removal[]): (of: JoinedList, id: string) => boolean {
  const gone = new Set(removed.filter((word) => word.gone).map(key));
  return (of, id) => gone.has(key({ of, id }));
}

const OF_SYSTEM = JOINED_LISTS.filter((of) => of !== 'readings');
const membersOf = (system: System): Named[] => OF_SYSTEM.flatMap((of) => system[of].map(({ id }) => ({ of, id })));

/**
 * A system after an edit, with the last word on members of its lists that went or came back by it.
 *
 * @param removes whether what went was removed; not so where its coming is taken back
 */
export function withRemovals(before: System, after: System, at: string, removes: boolean): System {
  if (OF_SYSTEM.every((of) => before[of] === after[of])) return after;
  const [was, is] = [membersOf(before), membersOf(after)];
  const [had, has] = [new Set(was.map(key)), new Set(is.map(key))];
  const removed = removalsAfter(after.removed, {
    went: removes ? was.filter((one) => !has.has(key(one))) : [],
    came: is.filter((one) => !had.has(key(one))),
    at,
  });
  return { ...after, removed };
}
