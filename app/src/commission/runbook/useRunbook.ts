import {
  asWorkedOn,
  baselineReading,
  expectedToday,
  fittedBy,
  handedOver,
  isUpgrade,
  judge,
  lastMeasured,
  missingAt,
  unproven,
  waitMeasure,
  LINE_STEP,
  measuredOf,
  probeOf,
  newWork,
  openWork,
  runbook,
  runbookSteps,
  stepDone,
  stepReopened,
  skippingCosts,
  todayOf,
  trainChange,
  unitsOfProbe,
  withDeviation,
  withMeasured,
  withStepEntered,
  withWork,
  type Expected,
  type Verdict,
} from '@yes-clear/core/commission';
import {
  allStages,
  asItStands,
  stoodBefore,
  withStands,
  type Deviation,
  type Measured,
  type Work,
  type WorkKind,
} from '@yes-clear/core/file';
import { behindInRow, serviced } from '@yes-clear/core/log';
import type { Measure, Step } from '@yes-clear/core/stage';
import { computed, inject, provide, ref, type InjectionKey } from 'vue';
import { useNotice } from '../../kit/useNotice';
import { useTimers, type Timer } from '../../kit/useTimers';
import { words } from '@yes-clear/core/quantity';
import { idFor, newId } from '../../store/newId';
import { logReading } from '../../store/readings';
import { useSaving } from '../../store/saving';
import { useOpenSystem } from '../../system/openSystem';

/** The runbook of the open system: its steps, what stands and what was read, and what a person does to them. */
export type Runbook = ReturnType<typeof makeRunbook>;
const KEY: InjectionKey<Runbook> = Symbol('runbook');

export function provideRunbook(): Runbook {
  const book = makeRunbook();
  provide(KEY, book);
  return book;
}

export function useRunbook(): Runbook {
  const book = inject(KEY);
  if (!book) throw new Error('No runbook is open here.');
  return book;
}

function makeRunbook() {
  const current = useOpenSystem();
  const { system } = current;
  const notice = useNotice();
  const saving = useSaving();
  const { timers, stop: stopTimer } = useTimers();
  const work = computed<Work | null>(() => (system.value ? openWork(system.value) : null));
  const measured = computed<readonly Measured[]>(() => work.value?.measured ?? []);
  /** Pressure and temperature as they were read on site: predictions change with them, and with the train. */
  const today = computed(() => todayOf(measured.value));
  /** What stays has been through what the log says; what is fitted is new. */
  const outcome = computed(() => {
    if (!system.value) return null;
    const open = work.value ?? newWork('new', 'newBuild', null, current.now.value);
    const use = open.kind === 'newBuild' ? {} : (current.solved.value?.use ?? {});
    const worked = asWorkedOn(system.value, use, fittedBy(system.value, open));
    return expectedToday(worked.system, today.value, worked.use);
  });
  const expected = computed<Expected | null>(() => (outcome.value?.ok ? outcome.value.value : null));
  /** Nothing is under way: what was handed over stands, or nobody has begun. */
  const idle = computed(
    () => work.value === null && system.value !== null && (system.value.build.commissioned !== null || stoodBefore(system.value)),
  );
  const sections = computed(() => (system.value && !idle.value ? runbook(system.value, expected.value) : []));
  const steps = computed(() => runbookSteps(sections.value));
  const done = computed(() => new Map((work.value?.done ?? []).map(({ step, at }) => [step, at])));
  const deviations = computed(() => new Map((work.value?.deviations ?? []).map((one) => [one.step, one])));
  const settled = (id: string): boolean => done.value.has(id) || deviations.value.get(id)?.how === 'skipped';
  const chosen = ref<string | null>(null);
  const step = computed<Step | null>(
    () => steps.value.find(({ id }) => id === chosen.value) ?? steps.value.find(({ id }) => !settled(id)) ?? steps.value.at(-1) ?? null,
  );
  const minutesLeft = computed(() => steps.value.filter(({ id }) => !settled(id)).reduce((sum, { minutes }) => sum + minutes, 0));
  const change = computed(() =>
    system.value?.build.commissioned ? trainChange(system.value.build.commissioned.train, system.value.train) : null,
  );

  const edit = (label: string, by: (work: Work, at: string) => Work): void => {
    const at = new Date().toISOString();
    current.edit(label, (s) => withWork(s, idFor('work'), at, (open) => by(open, at)));
  };
  function next(after: string): void {
    const at = steps.value.findIndex(({ id }) => id === after);
    chosen.value = (steps.value.slice(at + 1).find(({ id }) => !settled(id)) ?? steps.value.find(({ id }) => !settled(id)))?.id ?? after;
    if (steps.value.length > 0 && steps.value.every(({ id }) => settled(id))) void finish();
  }
  const stepOf = (id: string): Step | undefined => steps.value.find((one) => one.id === id);
  const leftOut = ({ id, title, act }: Step, reason: string, at: string): Deviation => ({
    step: id,
    title,
    at,
    how: 'skipped',
    reason,
    costs: skippingCosts(act),
  });
  /**
   * Ticks a step off: what was read at it enters the plan now, and not before. One whose figure is out of bounds, or with
   * something nobody read, takes its reason along, and what it is about.
   */
  function tick(id: string, reason: string | null = null, costs = ''): void {
    const one = stepOf(id);
    const before = system.value;
    const at = new Date().toISOString();
    const wait = one ? waited(one) : null;
    current.edit('step done', (s) => {
      const made = withWork(s, idFor('work'), at, (open) => {
        const ticked = stepDone(wait ? withMeasured(open, wait) : open, id, at);
        return reason === null
          ? ticked
          : withDeviation(ticked, { step: id, title: one?.title ?? id, at, how: 'accepted', reason, costs: costs.slice(0, 500) });
      });
      return one ? withStepEntered(made, one) : made;
    });
    if (wait) stopTimer(timerId(id));
    const planned = before?.source.linePressureBar;
    if (before && planned !== undefined && system.value && system.value.source.linePressureBar !== planned) {
      const say = words(before.units);
      notice.say(
        `Planned with ${say.of(system.value.source.linePressureBar, 'pressureBar')} from now on, not ${say.of(planned, 'pressureBar')}. Ctrl+Z takes it back.`,
      );
    }
    next(id);
  }
  const timerId = (step: string): string => `${current.id}/${step}`;
  const timerOf = (step: string): Timer | undefined => timers.value.find(({ id }) => id === timerId(step));
  /** How long the timer of a step has run, as a figure of it; null where none was started. */
  function waited(one: Step): Measured | null {
    const timer = timerOf(one.id);
    if (!timer || !system.value) return null;
    const now = Date.now();
    const seconds = Math.round((Math.min(now, timer.endsAt) - timer.startedAt) / 1000);
    return measuredOf(system.value, one, waitMeasure(one), seconds, new Date(now).toISOString(), today.value);
  }
  /** Stops the timer of a step and keeps how long it ran. */
  function keepWait(one: Step): void {
    const wait = waited(one);
    if (!wait) return;
    edit('timer stopped', (open) => withMeasured(open, wait));
    stopTimer(timerId(one.id));
  }
  /** What of a step nobody read, answered or timed. */
  const missing = (one: Step): string[] => missingAt({ measured: measured.value }, one, timerOf(one.id) !== undefined);
  const reopen = (id: string): void => edit('step reopened', (open) => stepReopened(open, id));
  function skip(one: Step, reason: string): void {
    edit('step left out', (open, at) => withDeviation(stepReopened(open, one.id), leftOut(one, reason, at)));
    next(one.id);
  }
  /** Ticks the last step with all that is open left out, each for the same reason, and hands over. */
  function handOverWithout(open: readonly Step[], last: string, reason: string): void {
    edit('handed over', (work, at) => open.reduce((so, one) => withDeviation(so, leftOut(one, reason, at)), stepDone(work, last, at)));
    next(last);
  }
  /** Keeps a figure with what was expected of it, and the pressure and temperature of the hour. */
  function read(at: Step, measure: Measure, value: number): void {
    const before = system.value;
    if (!before) return;
    const now = new Date().toISOString();
    const kept = measuredOf(before, at, measure, value, now, today.value);
    current.edit(`${measure.label.toLowerCase()} read`, (s) => withWork(s, idFor('work'), now, (open) => withMeasured(open, kept)));
  }
  /** Pressure or temperature as it is read at another step: one figure for all of them. */
  function readLine(measure: string, value: number): void {
    const at = steps.value.find(({ id }) => id === LINE_STEP.step);
    const known = at?.measures.find(({ id }) => id === measure);
    if (at && known) read(at, known, value);
  }
  const last = (at: Step, measure: Measure): Measured | null => lastMeasured({ measured: measured.value }, at.id, measure.id);
  /** A measure with the expectation it was read against: what was read since changes nothing of that. */
  function asRead(at: Step, measure: Measure): Measure {
    const found = last(at, measure);
    return found ? { ...measure, expected: found.expected, low: found.low, high: found.high } : measure;
  }
  function verdict(at: Step, measure: Measure): Verdict | null {
    const found = last(at, measure);
    if (!found || !system.value) return null;
    return judge(asRead(at, measure), found.value, unitsOfProbe(system.value, probeOf(system.value, at, measure)));
  }
  /** Figures of a step that lie outside what was expected. */
  const outside = (at: Step): readonly { readonly measure: Measure; readonly verdict: Verdict }[] =>
    at.measures.flatMap((measure) => {
      const found = verdict(at, measure);
      return found && (found.verdict === 'low' || found.verdict === 'high') ? [{ measure, verdict: found }] : [];
    });

  function start(kind: WorkKind, stageId: string | null): void {
    const at = new Date().toISOString();
    const id = idFor('work');
    current.edit('work begun', (s) => ({ ...s, build: { ...s.build, works: [...s.build.works, newWork(id, kind, stageId, at)] } }));
    chosen.value = null;
  }
  /** Takes back work that was begun by mistake; what was done in it goes with it, and undo brings it back. */
  function giveUp(): void {
    const open = work.value;
    if (!open) return;
    current.edit('work given up', (s) => ({ ...s, build: { ...s.build, works: s.build.works.filter(({ id }) => id !== open.id) } }));
    notice.say('The work is taken off the list. Ctrl+Z brings it back.');
  }

  /** What was there before is not put into service: the train as it is described is the one that stands. */
  const takeAsItStands = (): void => current.edit('as it stands', (s) => asItStands(s, new Date().toISOString()));
  function standsAlready(): void {
    current.edit('how it came to be', (s) => withStands(s, { how: 'already', since: null }));
    notice.say('It stands already. Ctrl+Z takes that back.');
  }

  /** Hands over: the baseline goes to the log, what was fitted counts its days from today. */
  async function finish(): Promise<void> {
    const open = work.value;
    const before = system.value;
    if (!open || !before) return;
    const at = new Date().toISOString();
    const reading = baselineReading(before, open, newId(), at);
    current.edit('handed over', (s) => {
      const stage = open.kind === 'partChange' ? allStages(s.train).find(({ id }) => id === open.stageId) : undefined;
      const over = handedOver(s, open, at, reading?.id ?? 'none').system;
      if (stage?.kind !== 'resin') return over;
      // A bed that moves up keeps what it has behind it: the work says so, not the hand-over.
      const work = behindInRow(s, stage).length > 0 ? ('movedUp' as const) : ('changed' as const);
      const done = { id: newId(), at, stageId: stage.id, instrumentId: null, work, why: 'notSaid' as const, note: '' };
      const written = serviced(s, done, current.solved.value?.use ?? {});
      return { ...over, services: written.services, train: written.train };
    });
    if (reading) await saving.keep('the baseline', () => logReading(reading));
    notice.say(reading ? 'Handed over. The baseline stands in the log.' : 'Handed over, without a baseline.');
    chosen.value = null;
  }

  return {
    system,
    work,
    today,
    expected,
    problem: computed(() => (outcome.value && !outcome.value.ok ? outcome.value.error.message : null)),
    idle,
    sections,
    steps,
    step,
    done,
    deviations,
    settled,
    minutesLeft,
    numberOf: computed(() => new Map(steps.value.map(({ id }, i) => [id, i + 1]))),
    change,
    canUpgrade: computed(() => change.value !== null && isUpgrade(change.value)),
    changeable: computed(() => (system.value ? allStages(system.value.train).filter((stage) => 'fittedOn' in stage) : [])),
    tick,
    reopen,
    skip,
    handOverWithout,
    read,
    readLine,
    last,
    asRead,
    missing,
    keepWait,
    /** What the hand-over cannot vouch for. */
    unproven: computed(() => (system.value && work.value ? unproven(system.value, work.value, steps.value) : [])),
    verdict,
    outside,
    start,
    giveUp,
    takeAsItStands,
    standsAlready,
    go: (id: string) => (chosen.value = id),
    next,
  };
}
