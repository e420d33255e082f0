import type { Deviation, Measured, System, Work, WorkKind } from '../file';
import { withPortReading } from '../advice';
import type { Step } from '../stage';
import { LINE_STEP } from './expected';

/** The piece of work under way; null between two of them. */
export const openWork = ({ build }: Pick<System, 'build'>): Work | null => build.works.findLast(({ endedAt }) => endedAt === null) ?? null;

/** Work that nobody has begun: the first step of a new build begins it. */
export const newWork = (id: string, kind: WorkKind, stageId: string | null, at: string): Work => ({
  id,
  kind,
  stageId,
  startedAt: at,
  endedAt: null,
  done: [],
  measured: [],
  deviations: [],
  cautions: [],
});

/** The open piece of work, changed; a system without one begins its new build with it. */
export function withWork(system: System, id: string, at: string, change: (work: Work) => Work): System {
  const open = openWork(system);
  const works = open
    ? system.build.works.map((one) => (one === open ? change(one) : one))
    : [...system.build.works, change(newWork(id, 'newBuild', null, at))];
  return { ...system, build: { ...system.build, works } };
}

/** A step ticked off; what was said of leaving it out no longer holds. */
export const stepDone = (work: Work, step: string, at: string): Work => ({
  ...work,
  done: [...work.done.filter((one) => one.step !== step), { step, at }],
  deviations: work.deviations.filter((one) => one.step !== step || one.how !== 'skipped'),
});

/** A step taken up again: what was read at it stays, as earlier readings do. */
export const stepReopened = (work: Work, step: string): Work => ({
  ...work,
  done: work.done.filter((one) => one.step !== step),
  deviations: work.deviations.filter((one) => one.step !== step),
});

/** A figure read at a step. */
export const withMeasured = (work: Work, measured: Measured): Work => ({ ...work, measured: [...work.measured, measured] });

/** A step left out, or its figure taken as it is, with the reason. */
export const withDeviation = (work: Work, deviation: Deviation): Work => ({
  ...work,
  deviations: [...work.deviations.filter((one) => one.step !== deviation.step), deviation],
});

/** What was read last of a measure of a step. */
export const lastMeasured = (work: { readonly measured: readonly Measured[] }, step: string, measure: string): Measured | null =>
  work.measured.findLast((one) => one.step === step && one.measure === measure) ?? null;

/** A pressure read on site takes the place of one that a template assumed; one that somebody planned with stands. */
export const withLineRead = (system: System, { step, measure, value }: Pick<Measured, 'step' | 'measure' | 'value'>): System =>
  step === LINE_STEP.step && measure === LINE_STEP.pressure && system.source.assumed.includes('linePressure')
    ? {
        ...system,
        source: { ...system.source, linePressureBar: value, assumed: system.source.assumed.filter((mark) => mark !== 'linePressure') },
      }
    : system;

/** What a step that is done enters into the plan, of what was read last at it: a pressure nobody had planned with, the ports of vessels. */
export function withStepEntered(system: System, step: Pick<Step, 'id' | 'measures'>): System {
  const open = openWork(system);
  if (!open) return system;
  return step.measures.reduce((so, measure) => {
    const read = lastMeasured(open, step.id, measure.id);
    if (!read) return so;
    const next = withLineRead(so, read);
    return measure.port ? withPortReading(next, { ...measure.port, ec25UScm: read.value, at: read.at }) : next;
  }, system);
}
