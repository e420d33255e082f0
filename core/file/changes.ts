/**
 * What an edit changed, place by place: so that it can be written on top of whatever is stored now, be taken back without
 * touching anything else, and outlive a crash. Works on plain data (objects, lists, texts, numbers, booleans, null).
 */

/** A step into plain data: a key of an object, the place in a list, or the member of a list that bears an id. */
export type Step = string | number | { readonly id: string };

/** One place that changed. What was not there, or is there no longer, is undefined. */
export interface Change {
  readonly at: readonly Step[];
  readonly before?: unknown;
  readonly after?: unknown;
  /** For a member that came or went: the id it stood behind; null at the head of its list. */
  readonly behind?: string | null;
  /** For a list whose members were moved: their ids in the order of before and after. */
  readonly order?: { readonly before: readonly string[]; readonly after: readonly string[] };
}

type Member = { readonly id: string };
type Data = Record<string, unknown>;
const isData = (value: unknown): value is Data => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether a list is told apart by the ids of its members. */
function hasIds(list: readonly unknown[]): list is readonly Member[] {
  if (!list.every((member) => isData(member) && typeof member['id'] === 'string')) return false;
  return new Set(list.map((member) => (member as Member).id)).size === list.length;
}

/** Whether two pieces of plain data are the same, whatever the order of their keys. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((member, i) => same(member, b[i]));
  if (!isData(a) || !isData(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && same(a[key], b[key]));
}

/** Plain data as one text that does not depend on the order of its keys. */
export function asText(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(asText).join(',')}]`;
  if (!isData(value)) return JSON.stringify(value) ?? 'null';
  const members = Object.keys(value).sort();
  return `{${members.map((key) => `${JSON.stringify(key)}:${asText(value[key])}`).join(',')}}`;
}

/** Every place in which two states of plain data differ. */
export function changesBetween(before: unknown, after: unknown, at: readonly Step[] = []): Change[] {
  if (Object.is(before, after)) return [];
  if (isData(before) && isData(after))
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
      changesBetween(before[key], after[key], [...at, key]),
    );
  if (Array.isArray(before) && Array.isArray(after)) {
    if (before.length + after.length > 0 && hasIds(before) && hasIds(after)) return listChanges(before, after, at);
    if (before.length === after.length) return before.flatMap((member, i) => changesBetween(member, after[i], [...at, i]));
  }
  return same(before, after) ? [] : [{ at, before, after }];
}

/** Members that went, changed and came, and whether the others were moved. */
function listChanges(before: readonly Member[], after: readonly Member[], at: readonly Step[]): Change[] {
  const was = new Map(before.map((member) => [member.id, member]));
  const is = new Map(after.map((member) => [member.id, member]));
  const behind = (list: readonly Member[], i: number): string | null => list[i - 1]?.id ?? null;
  const step = (id: string): readonly Step[] => [...at, { id }];
  const gone = before.flatMap((member, i) =>
    is.has(member.id) ? [] : [{ at: step(member.id), before: member, behind: behind(before, i) }],
  );
  const changed = before.flatMap((member) => (is.has(member.id) ? changesBetween(member, is.get(member.id), step(member.id)) : []));
  const come = after.flatMap((member, i) => (was.has(member.id) ? [] : [{ at: step(member.id), after: member, behind: behind(after, i) }]));
  const kept = (list: readonly Member[]): string[] => list.map(({ id }) => id).filter((id) => was.has(id) && is.has(id));
  const order = { before: kept(before), after: kept(after) };
  const moved = same(order.before, order.after) ? [] : [{ at, order }];
  // What went goes from behind, so that it comes back in front of what it is counted from.
  return [...gone.reverse(), ...changed, ...moved, ...come];
}

/** The changes that take others back. */
export const takenBack = (changes: readonly Change[]): Change[] =>
  [...changes].reverse().map(({ at, before, after, behind, order }) => ({
    at,
    ...(after === undefined ? {} : { before: after }),
    ...(before === undefined ? {} : { after: before }),
    ...(behind === undefined ? {} : { behind }),
    ...(order ? { order: { before: order.after, after: order.before } } : {}),
  }));

export interface Applied<T> {
  readonly state: T;
  /** Places that no longer hold what the change began from: another hand was there. */
  readonly missed: readonly Change[];
}

/**
 * Carries changes over to a state that may have moved on.
 *
 * @param missed what becomes of a place that holds something else than the change began from: 'overwrite' it (the last
 *   hand wins) or 'leave' it
 */
export function applyChanges<T>(state: T, changes: readonly Change[], missed: 'overwrite' | 'leave'): Applied<T> {
  let now: unknown = state;
  const others: Change[] = [];
  for (const change of changes) {
    const { value, agreed } = applied(now, change, change.at, missed);
    if (!agreed) others.push(change);
    now = value;
  }
  return { state: now as T, missed: others };
}

/** What stands at a place after a change, and whether the change found there what it began from. */
interface Placed {
  readonly value: unknown;
  readonly agreed: boolean;
}

/** One change carried out below a place. */
function applied(value: unknown, change: Change, path: readonly Step[], missed: 'overwrite' | 'leave'): Placed {
  const [step, ...rest] = path;
  if (step === undefined) return atPlace(value, change, missed);
  if (typeof step === 'object') {
    if (!Array.isArray(value)) return { value, agreed: false };
    return rest.length === 0
      ? member(value as Member[], step.id, change, missed)
      : inMember(value as Member[], step.id, change, rest, missed);
  }
  if (Array.isArray(value)) {
    const list = value as unknown[];
    if (typeof step !== 'number' || step >= list.length) return { value, agreed: false };
    const inner = applied(list[step], change, rest, missed);
    return { value: list.map((one, i) => (i === step ? inner.value : one)), agreed: inner.agreed };
  }
  if (!isData(value)) return { value, agreed: false };
  const key = String(step);
  const inner = applied(value[key], change, rest, missed);
  if (inner.value !== undefined) return { value: { ...value, [key]: inner.value }, agreed: inner.agreed };
  return { value: Object.fromEntries(Object.entries(value).filter(([other]) => other !== key)), agreed: inner.agreed };
}

function atPlace(value: unknown, { before, after, order }: Change, missed: 'overwrite' | 'leave'): Placed {
  if (order) return Array.isArray(value) && hasIds(value) ? reordered(value, order.after) : { value, agreed: false };
  const agreed = same(value, before) || same(value, after);
  return { value: agreed || missed === 'overwrite' ? after : value, agreed };
}

/** A list in a new order; what is not named in it stays behind what it stood behind. */
function reordered(list: readonly Member[], order: readonly string[]): Placed {
  const byId = new Map(list.map((one) => [one.id, one]));
  const named = order.filter((id) => byId.has(id)).map((id) => byId.get(id)!);
  const result: Member[] = [...named];
  list.forEach((one, i) => {
    if (order.includes(one.id)) return;
    const at = result.findIndex((other) => other.id === list[i - 1]?.id);
    result.splice(at + 1, 0, one);
  });
  return { value: result, agreed: true };
}

/** A member that came, went, or changed as a whole. */
function member(list: readonly Member[], id: string, { before, after, behind }: Change, missed: 'overwrite' | 'leave'): Placed {
  const at = list.findIndex((one) => one.id === id);
  if (after === undefined) {
    if (at < 0) return { value: list, agreed: true };
    const agreed = same(list[at], before);
    return { value: agreed || missed === 'overwrite' ? list.filter((one) => one.id !== id) : list, agreed };
  }
  if (at >= 0) {
    const agreed = same(list[at], before) || same(list[at], after);
    return { value: agreed || missed === 'overwrite' ? list.map((one, i) => (i === at ? (after as Member) : one)) : list, agreed };
  }
  const place = behind === null ? 0 : list.findIndex((one) => one.id === behind) + 1;
  // What it stood behind is gone: it goes to the end, never in front of everything.
  const index = behind !== null && place === 0 ? list.length : place;
  return { value: [...list.slice(0, index), after as Member, ...list.slice(index)], agreed: true };
}

function inMember(list: readonly Member[], id: string, change: Change, rest: readonly Step[], missed: 'overwrite' | 'leave'): Placed {
  const at = list.findIndex((one) => one.id === id);
  if (at < 0) return { value: list, agreed: false };
  const inner = applied(list[at], change, rest, missed);
  return { value: list.map((one, i) => (i === at ? (inner.value as Member) : one)), agreed: inner.agreed };
}

const place = (at: readonly Step[]): string => JSON.stringify(at);

/** Two runs of changes as one: a place set twice is set once, from where it began. */
export function joined(first: readonly Change[], then: readonly Change[]): Change[] {
  const all = [...first];
  for (const change of then) {
    const at = all.findLastIndex((one) => place(one.at) === place(change.at));
    const earlier = all[at];
    const plain = earlier && !earlier.order && !change.order && earlier.behind === undefined && change.behind === undefined;
    // Only the last word on a place may be taken together: what came between may rest on it.
    if (plain && at === all.length - 1) all[at] = { at: change.at, before: earlier.before, after: change.after };
    else all.push(change);
  }
  return all;
}
