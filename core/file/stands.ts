import { kindOf, type Stage } from '../stage';
import type { Stands, System } from './schema';
import { allStages, mapStages } from './select';

/** How a system came to be, as it is asked. */
export const STANDS_WORDS: Readonly<Record<Stands['how'], { readonly label: string; readonly says: string }>> = {
  new: { label: 'New', says: 'It is planned here and built after it.' },
  already: { label: 'Stands already', says: 'It hangs there and runs: it goes straight to the log. What is changed later begins from it.' },
  secondHand: {
    label: 'Bought second-hand',
    says: 'What its membrane and resin have been through is not known, and never told as if it were.',
  },
};

/** Whether a system was there before it was described: nothing of it is put into service here. */
export const stoodBefore = ({ build }: Pick<System, 'build'>): boolean => build.stands.how !== 'new';

/** Whether it is still being described: no train has been fixed that later changes begin from. */
export const isBeingDescribed = (system: Pick<System, 'build'>): boolean => stoodBefore(system) && system.build.commissioned === null;

/**
 * A system said to stand, or not to after all. Said otherwise, what had been fixed of it is let go; another day of it
 * changes nothing else, and a hand-over that happened stays what later work is held against.
 */
export function withStands(system: System, stands: Stands): System {
  const { build } = system;
  const stays = stands.how === build.stands.how || build.works.some(({ endedAt }) => endedAt !== null);
  return { ...system, build: { ...build, stands, commissioned: stays ? build.commissioned : null } };
}

/**
 * The train as it is described is the one that stands: what is changed from now on is a change to it.
 *
 * @param readingId the reading later ones are held against, where one was taken
 */
export const asItStands = (system: System, at: string, readingId: string | null = null): System => ({
  ...system,
  build: { ...system.build, commissioned: { at, train: system.train, readingId } },
});

/** Since when a part is in, said; null where nobody knows. */
export const withFittedOn = (system: System, stageId: string, fittedOn: string | null): System => ({
  ...system,
  train: mapStages(system.train, (stage) => (stage.id === stageId && 'fittedOn' in stage ? { ...stage, fittedOn } : stage)),
});

/** Parts that are changed one day and of which nobody knows since when they are in: nothing of them can fall due. */
export const undatedStages = (system: Pick<System, 'train'>): Stage[] =>
  allStages(system.train).filter(
    (stage) =>
      'fittedOn' in stage &&
      stage.fittedOn === null &&
      // Membranes and resin have no calendar of their own: their age and their log say when.
      (stage.kind === 'membrane' || stage.kind === 'resin' || kindOf(stage).upkeep(stage, null).length > 0),
  );
