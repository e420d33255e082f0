import type { Probe } from './schema';

/** What a place is, apart from what has places (`places.ts`): a picture of a train needs no more than this. */

/** Where along a train water can be read: behind a stage, in a membrane's feed or waste, at one vessel, in what a loop brings back. */
export type Place = Pick<Probe, 'after' | 'side' | 'vessel'>;

/** Behind the tap, a stage of the train or a stage of a use. */
export const behind = (after: string): Place => ({ after, side: 'out', vessel: null });

export const isSamePlace = (one: Place, other: Place): boolean =>
  one.after === other.after &&
  one.side === other.side &&
  one.vessel?.rank === other.vessel?.rank &&
  one.vessel?.vessel === other.vessel?.vessel;

/** A place as one text, for a list to choose from. */
export const placeKey = ({ after, side, vessel }: Place): string =>
  [side, after, ...(vessel ? [vessel.rank, vessel.vessel] : [])].join(' ');
