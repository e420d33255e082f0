/** What age, work and season make of a cause's odds (science of faults, 2.2; product assumptions). */

const LEAST_AGE = 0.1;
const MOST_AGE = 5;

/** Wear parts fail the sooner the older they are: Weibull hazard of shape 3, 1 at about 0.58 of life. */
export const ageFactor = (usedShare: number): number => Math.min(MOST_AGE, Math.max(LEAST_AGE, 3 * usedShare * usedShare));

/** Work on a part raises what that work causes, for a week. */
export const WORK_FACTOR = 8;
export const WORK_DAYS = 7;
/** Water colder than at the baseline by this raises cold water; and an announced spell a stronger tap. */
export const SEASON_FACTOR = 3;
export const COLDER_BY_C = 5;

/** What a workshop's own counts add to a weight: ten, shared out as its confirmed causes were. */
export const ownCountWeight = (weight: number, count: number, total: number): number => weight + (total > 0 ? (10 * count) / total : 0);
