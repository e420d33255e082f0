import { applyChanges, changesBetween, same, type Applied, type Change } from './changes';
import type { Reading } from './schema';

/** Edits of a reading, figure by figure: two tabs that each mend another figure of one reading both count. */

type Keyed = Omit<Reading, 'values' | 'also' | 'photos' | 'confirmed'> & {
  readonly values: Readonly<Record<string, Reading['values'][number]>>;
  readonly also: Readonly<Record<string, Reading['also'][number]>>;
  readonly photos: Readonly<Record<string, true>>;
  readonly confirmed: Readonly<Record<string, true>>;
};
const allOf = (list: readonly string[]): Record<string, true> => Object.fromEntries(list.map((one) => [one, true]));

/** What was shown at a probe, by probe and meter: a probe can be read with two. */
const shownAt = ({ probeId, instrumentId }: Reading['values'][number]): string => `${probeId} ${instrumentId}`;

/** A reading with its lists by what they are told apart by. */
const keyed = (reading: Reading): Keyed => ({
  ...reading,
  values: Object.fromEntries(reading.values.map((one) => [shownAt(one), one])),
  also: Object.fromEntries(reading.also.map((one) => [one.gaugeId, one])),
  photos: allOf(reading.photos),
  confirmed: allOf(reading.confirmed),
});
/** And as it is kept; in the order of `like`, what is new behind it. */
function plain({ values, also, photos, confirmed, ...rest }: Keyed, like: Reading): Reading {
  const names = (members: Readonly<Record<string, unknown>>, order: readonly string[]): string[] => [
    ...order.filter((key) => key in members),
    ...Object.keys(members).filter((key) => !order.includes(key)),
  ];
  const inOrder = <T>(members: Readonly<Record<string, T>>, order: readonly string[]): T[] =>
    names(members, order).map((key) => members[key]!);
  return {
    ...rest,
    values: inOrder(values, like.values.map(shownAt)), // prettier-ignore
    also: inOrder(also, like.also.map(({ gaugeId }) => gaugeId)), // prettier-ignore
    photos: names(photos, like.photos),
    confirmed: names(confirmed, like.confirmed),
  };
}

/** What an edit changed of a reading; when it was edited goes with it, and is no change by itself. */
export const readingChanges = (before: Reading, after: Reading): Change[] =>
  changesBetween(keyed({ ...before, editedAt: null }), keyed({ ...after, editedAt: null }));

/**
 * An edit of a reading carried over to the reading as it stands now. Taking an edit back is one too: a copy that had it
 * before is not newer than one where it was taken back.
 *
 * @param at instant of the edit
 * @param missed as for `applyChanges`: what another hand changed meanwhile is overwritten by an edit, left by taking one back
 */
export function withEdit(
  now: Reading,
  { before, after, at }: { readonly before: Reading; readonly after: Reading; readonly at: string },
  missed: 'overwrite' | 'leave',
): Applied<Reading> {
  const applied = applyChanges(keyed({ ...now, editedAt: null }), readingChanges(before, after), missed);
  const state = plain(applied.state, after);
  if (missed === 'overwrite' && saysTheSame(state, after)) return { state: { ...state, editedAt: after.editedAt }, missed: applied.missed };
  const editedAt = saysTheSame(state, now) ? now.editedAt : at;
  return { state: { ...state, editedAt }, missed: applied.missed };
}

/** Whether two readings say the same, whenever they were edited. */
export const saysTheSame = (one: Reading, other: Reading): boolean => same({ ...one, editedAt: null }, { ...other, editedAt: null });
