import type { System } from './schema';

/** A system put away for weeks or a winter: since when, and what that asks for meanwhile. */

/** A preservative of metabisulfite is renewed after this many days (common practice: at most half a year, sooner in warmth). */
export const PRESERVED_DAYS = 180;

/** The day on which it was put away; null while it is in service. What was begun and not ended counts for nothing yet. */
export function awaySince({ build }: Pick<System, 'build'>): string | null {
  const last = build.works
    .filter(({ endedAt }) => endedAt !== null)
    .reduce<System['build']['works'][number] | null>((at, one) => (at === null || one.endedAt! > at.endedAt! ? one : at), null);
  return last?.kind === 'putAway' ? last.endedAt : null;
}
