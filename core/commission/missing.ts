import { LINE_STEP } from './expected';
import type { Measured, System, Work } from '../file';
import { GOAL_ROWS } from '../goal';
import { minutesText } from '../quantity';
import type { Measure, Step } from '../stage';
import { lastMeasured } from './work';

/** What a step or a hand-over leaves unsaid: a blank is not a yes. */

/** What the wait of a step is kept as, beside its figures. */
export const WAITED = 'waited';

/** Figures and questions of a step that nobody read or answered, and a wait nobody timed; in words, none where all stands. */
export function missingAt(work: { readonly measured: readonly Measured[] }, step: Step, waits: boolean): string[] {
  const unsaid = (measure: Measure): boolean => lastMeasured(work, step.id, measure.id) === null;
  return [
    ...step.measures.filter(unsaid).map(({ label, dimension }) => `${label}: ${dimension === 'seen' ? 'not answered' : 'not read'}`),
    ...(step.waits && !waits && lastMeasured(work, step.id, WAITED) === null
      ? [`${minutesText(step.minutes)}: the timer was not started`]
      : []),
  ];
}

/** The wait of a step as a measure: how long it was told to last, and how long the timer ran. */
export const waitMeasure = ({ minutes }: Pick<Step, 'minutes'>): Measure => ({
  id: WAITED,
  label: 'Waited',
  dimension: 'timeS',
  expected: 60 * minutes,
  low: null,
  high: null,
  because: 'by the timer of this step',
});

/** Acts at which the product is read before it goes anywhere. */
const READS_PRODUCT: ReadonlySet<Step['act']> = new Set(['taste', 'baseline', 'rinse']);

/**
 * What a hand-over cannot vouch for: told in red on the screen and on the paper.
 *
 * @param steps of the work's runbook
 */
export function unproven(system: System, work: Work, steps: readonly Step[]): string[] {
  const read = (step: Step, of: (measure: Measure) => boolean): boolean =>
    step.measures.some((measure) => of(measure) && lastMeasured(work, step.id, measure.id) !== null);
  const asked = (of: (step: Step) => boolean): Step[] => steps.filter(of);
  const line = asked(({ id }) => id === LINE_STEP.step);
  const product = asked(({ act }) => READS_PRODUCT.has(act));
  const isProduct = ({ dimension, id }: Measure): boolean => dimension === 'conductivityUScm' && id !== tapProbe(system);
  const filled = work.done.some(({ step }) => steps.some(({ id, act }) => id === step && act === 'fill'));
  const tasted = product.some((step) => step.act === 'taste' && read(step, isProduct));
  const drinking = GOAL_ROWS[system.goal.id].family === 'drinking';
  return [
    ...(line.length > 0 && !line.some((step) => read(step, ({ id }) => id === LINE_STEP.pressure))
      ? ['The pressure was not read: every prediction beside these figures follows the planned one.']
      : []),
    ...(product.length > 0 && !product.some((step) => read(step, isProduct))
      ? ['Nobody read the product: how pure it is, is not known.']
      : []),
    ...(drinking && filled && product.some(({ act }) => act === 'taste') && !tasted
      ? ['Water was let into a tank people drink from before anybody read it. Empty it, read the product, and only then fill it.']
      : []),
  ];
}
const tapProbe = ({ train }: Pick<System, 'train'>): string => `probe-${train.probes.find(({ after }) => after === 'tap')?.id ?? ''}`;
