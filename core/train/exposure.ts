import type { Train } from '../file';
import type { Water } from '../water';
import { waterAfter } from './walk';
import type { TrainUse } from '../stage';

/** Chlorine and chloramine that reach the membrane, mg/L. */
export interface Exposure {
  readonly chlorineMgL: number;
  readonly chloramineMgL: number;
}

/** Moments of the carbon's service the mean is taken over. */
const MOMENTS = 10;

/**
 * What has come past the carbon on a mean day since it was fitted: little while it is new, all of it once it is spent.
 * Carbons that stood there before are taken to have been run as far.
 *
 * @param flowLPerH feed of the membrane
 * @param use litres each carbon has had
 * @returns null without a membrane
 */
export function meanExposure(train: Train, feed: Water, flowLPerH: number, use: TrainUse): Exposure | null {
  const at = train.stages.findIndex((stage) => stage.kind === 'membrane');
  if (at < 0) return null;
  let [chlorine, chloramine] = [0, 0];
  for (let k = 0; k < MOMENTS; k++) {
    const share = (k + 0.5) / MOMENTS;
    const then = Object.fromEntries(Object.entries(use).map(([id, one]) => [id, { ...one, passedL: (one.passedL ?? 0) * share }]));
    let water = feed;
    for (const stage of train.stages.slice(0, at)) {
      const after = waterAfter(stage, water, flowLPerH, then);
      if (after.ok) water = after.value.water;
    }
    chlorine += water.mgL.chlorine / MOMENTS;
    chloramine += water.mgL.chloramine / MOMENTS;
  }
  return { chlorineMgL: chlorine, chloramineMgL: chloramine };
}
