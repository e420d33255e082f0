import { fail, ok, type Outcome } from '../../quantity';
import { faultOf } from '../catalogue';
import type { FaultAnswer } from '../diagnose';
import { READING_KINDS, YES_NO_CHECKS, type KindId, type YesNoId } from '../kinds';
import { isKind } from '../nextCheck';
import type { Exercise } from './exercises';
import type { HarmId } from './harm';
import { drawnErrors, readWithErrors } from './instruments';
import { isMendedBy, priceOf, REPAIRS, repairOf, type RepairId } from './repairs';
import { chanceOf, type BenchState } from './state';
import { goalPpm, hasValve, isVented, VALVES, type Bench, type ValveId, type Valves } from './systems';
import { toolsOf, type Tool } from './tools';
import { RESTED_MINUTES, stillHidden, truthOf } from './truth';

/** Something done on the bench. */
export type BenchAction =
  | { readonly kind: 'tool'; readonly tool: string }
  /** One check by itself, whatever tool it belongs to. */
  | { readonly kind: 'check'; readonly check: KindId | YesNoId }
  | { readonly kind: 'valve'; readonly valve: ValveId; readonly to: Valves[ValveId]; readonly atOnce?: boolean }
  | { readonly kind: 'run'; readonly minutes: number }
  | { readonly kind: 'repair'; readonly repair: RepairId }
  | { readonly kind: 'takeOut'; readonly what: BenchState['out'] }
  | { readonly kind: 'warm'; readonly toC: number | null }
  | { readonly kind: 'plugRelief' }
  | { readonly kind: 'ask' }
  | { readonly kind: 'hint' };

/** A figure read, and the kind the search may take it for; null where the rig stands otherwise than the search knows it. */
export interface BenchReading {
  readonly kind: KindId;
  readonly value: number;
  readonly countsAs: KindId | null;
}
/** What an action came to. */
export interface BenchEntry {
  readonly action: BenchAction;
  readonly minutes: number;
  /** Clock at its end, minutes. */
  readonly at: number;
  readonly readings: readonly BenchReading[];
  readonly answer: (FaultAnswer & { readonly counts: boolean }) | null;
  readonly harm: readonly HarmId[];
}
export interface Acted {
  readonly state: BenchState;
  readonly entry: BenchEntry;
}

/** What takes always as long, minutes. */
export const ACTION_MINUTES = { takeOut: 6, warm: 3, plugRelief: 2, ask: 0.5, hint: 5 } as const;
const AT_ONCE_MINUTES = 0.1;
/** A pump takes harm sooner than this, minutes. */
const DRY_MINUTES = 10 / 60;
/** Minutes of chlorine, or of poor water in the tank, that are overlooked. */
const OVERLOOKED_MINUTES = 2;
/** Rinsing after a new or a cleaned membrane, minutes (common practice). */
const RINSE_MINUTES = 60;
/** What doubles the salt passage of a membrane, ppm of free chlorine times hours (science of membranes, recalled). */
const CHLORINE_PPM_H = 500;
const HOTTEST_C = 45;
/** What the resin that preservative went through costs, EUR. */
const RESIN_EUR = REPAIRS.resin.price;

/** Looks and questions that need no running water. */
const DRY_CHECKS: readonly YesNoId[] = ['lookConnections', 'inspectSeals', 'askFirstMinute', 'lampCheck', 'lookSoftener', 'liftHose'];
/** Kinds read of water that comes through the product line. */
const BEHIND_LINE: readonly KindId[] = ['product', 'midResin', 'penProduct', 'pH'];

/** Whether water goes through the rig. */
export const runs = ({ valves }: Pick<BenchState, 'valves'>): boolean =>
  valves.feed === 'open' && valves.pump === 'on' && valves.pressure !== 'none';

/**
 * Carries an action out.
 *
 * @returns the rig after it with what it came to, or an error that says what stands in its way; then no time has passed
 */
export function act(bench: Bench, exercise: Exercise, state: BenchState, action: BenchAction): Outcome<Acted> {
  const minutes = minutesOfAction(bench, action);
  if (!minutes.ok) return minutes;
  const left = (exercise.budgetMinutes ?? Infinity) - state.minutes;
  if (minutes.value > left)
    return fail(
      'minutes',
      minutes.value,
      `at most ${left}`,
      `The customer leaves in ${left} min: there is no time for that. Name the cause.`,
    );
  const done = carriedOut(bench, exercise, state, action, minutes.value);
  if (!done.ok) return done;
  const { readings = [], answer = null } = done.value;
  const after = done.value.state;
  const harm = after.harm.filter((one) => !state.harm.includes(one));
  return ok({ state: after, entry: { action, minutes: minutes.value, at: after.minutes, readings, answer, harm } });
}

const unknown = (field: string, value: string): Outcome<never> =>
  fail(field, value, 'one that this rig has', `This rig has no ${field} “${value}”.`);

/** What an action takes; an error where the rig does not know it. */
function minutesOfAction(bench: Bench, action: BenchAction): Outcome<number> {
  switch (action.kind) {
    case 'tool': {
      const tool = toolOf(bench, action.tool);
      return tool ? ok(tool.minutes) : unknown('tool', action.tool);
    }
    case 'check': {
      const { kinds, checks } = bench.ground.available;
      if (isKind(action.check))
        return kinds.includes(action.check) ? ok(READING_KINDS[action.check].minutes) : unknown('check', action.check);
      return checks.includes(action.check) ? ok(YES_NO_CHECKS[action.check].minutes) : unknown('check', action.check);
    }
    case 'valve':
      if (!hasValve(bench.id, action.valve)) return unknown('valve', action.valve);
      if (!(VALVES[action.valve].positions as readonly string[]).includes(action.to)) return unknown('position', action.to);
      return ok(action.atOnce ? AT_ONCE_MINUTES : VALVES[action.valve].minutes);
    case 'run':
      return action.minutes > 0 && action.minutes <= 24 * 60
        ? ok(action.minutes)
        : fail('minutes', action.minutes, '1 to 1,440', `It can run for 1 to 1,440 minutes, not ${action.minutes}.`);
    case 'repair':
      return action.repair in REPAIRS ? ok(repairOf(action.repair).minutes) : unknown('repair', action.repair);
    default:
      return ok(ACTION_MINUTES[action.kind]);
  }
}

const toolOf = (bench: Bench, tool: string): Tool | undefined => toolsOf(bench.ground.available).find(({ id }) => id === tool);

interface CarriedOut {
  readonly state: BenchState;
  readonly readings?: readonly BenchReading[];
  readonly answer?: BenchEntry['answer'];
}

function carriedOut(bench: Bench, exercise: Exercise, state: BenchState, action: BenchAction, minutes: number): Outcome<CarriedOut> {
  switch (action.kind) {
    case 'tool': {
      const tool = toolOf(bench, action.tool)!;
      return tool.check ? looked(bench, state, tool.check, minutes) : readWith(bench, exercise, state, tool.kinds, minutes);
    }
    case 'check':
      return isKind(action.check) ? readWith(bench, exercise, state, [action.check], minutes) : looked(bench, state, action.check, minutes);
    case 'valve':
      return ok({ state: turned(bench, passed(bench, state, minutes), action) });
    case 'run':
      return runs(state) ? ok({ state: passed(bench, state, minutes, false) }) : standsStill(state);
    case 'repair':
      return ok({ state: repaired(bench, passed(bench, opening(state, repairOf(action.repair).opens === true), minutes), action.repair) });
    case 'takeOut':
      return ok({ state: { ...passed(bench, opening(state, true), minutes), out: action.what } });
    case 'warm': {
      const mixed = { ...passed(bench, state, minutes), feedC: action.toC };
      return ok({ state: action.toC !== null && action.toC > HOTTEST_C ? cooked(bench, mixed) : mixed });
    }
    case 'plugRelief':
      return ok({ state: harmed(passed(bench, state, minutes), 'relief') });
    case 'ask':
    case 'hint':
      return ok({ state: passed(bench, state, minutes) });
  }
}

const harmed = (state: BenchState, harm: HarmId): BenchState =>
  state.harm.includes(harm) ? state : { ...state, harm: [...state.harm, harm] };

/** A housing is opened: under pressure that is harm, and the feed is shut by whoever stands in the spray. */
function opening(state: BenchState, opens: boolean): BenchState {
  if (!opens) return state;
  const safe = state.pressed ? harmed(state, 'pressure') : state;
  return { ...safe, pressed: false, valves: { ...safe.valves, feed: 'shut' } };
}

function cooked(bench: Bench, state: BenchState): BenchState {
  if (state.harm.includes('hotFeed')) return state;
  const price = priceOf('membrane', bench.ground.rig.elements);
  return { ...harmed(state, 'hotFeed'), spent: state.spent + price, hidden: [...state.hidden, { id: 'oxidised', severity: 0.5 }] };
}

const hasResin = (bench: Bench): boolean => bench.system.train.stages.some(({ kind }) => kind === 'resin');
const chlorineMgL = ({ system }: Bench): number => {
  const sample = system.source.samples.at(-1);
  return (sample?.chlorineMgL ?? 0) + (sample?.chloramineMgL ?? 0);
};

/** Time goes by with the rig as it stands: what runs, what dries out, and where the water goes. */
function passed(bench: Bench, state: BenchState, minutes: number, attended = true): BenchState {
  let next: BenchState = { ...state, minutes: state.minutes + minutes };
  const { valves } = state;
  if (hasValve(bench.id, 'pump') && valves.pump === 'on' && valves.feed === 'shut' && minutes > DRY_MINUTES) next = harmed(next, 'pump');
  if (!runs(state)) return next;
  next = { ...next, ranMinutes: state.ranMinutes + minutes };
  // Water reaches the resin through the product line, or, where that cannot be taken off, unless it goes to drain.
  const reachesResin = hasResin(bench) && (hasValve(bench.id, 'line') ? valves.line === 'on' : valves.outlet === 'to tank');
  if (state.toRinseMinutes > 0 && !reachesResin) next = { ...next, toRinseMinutes: Math.max(0, state.toRinseMinutes - minutes) };
  else if (state.toRinseMinutes > 0)
    next = {
      ...harmed(next, 'preservative'),
      spent: next.spent + RESIN_EUR,
      toRinseMinutes: 0,
      hidden: [...next.hidden, { id: 'resinPoisoned', severity: 0.5 }],
      mended: next.mended.filter((repair) => repair !== 'resin'),
    };
  if (state.out === 'all' && bench.ground.rig.elements > 0 && chlorineMgL(bench) > 0) {
    const chlorineMinutes = state.chlorineMinutes + minutes;
    next = { ...next, chlorineMinutes, saltAged: state.saltAged * 2 ** ((chlorineMgL(bench) * minutes) / 60 / CHLORINE_PPM_H) };
    if (chlorineMinutes > OVERLOOKED_MINUTES) next = harmed(next, 'chlorine');
  }
  if (valves.outlet === 'to tank' && valves.line === 'on') {
    const poorMinutes = state.poorMinutes + (isPoor(bench, state) ? minutes : 0);
    next = { ...next, poorMinutes };
    if (poorMinutes > OVERLOOKED_MINUTES) next = harmed(next, 'badWater');
    if (!attended && stillHidden(state).some(({ id }) => id === 'shutoff')) next = harmed(next, 'floor');
  }
  return next;
}

/** Whether what comes out misses the goal. */
function isPoor(bench: Bench, state: BenchState): boolean {
  const limit = goalPpm(bench.system);
  const truth = truthOf(bench, state);
  return limit !== null && truth.ok && truth.value.product > limit;
}

function turned(bench: Bench, state: BenchState, action: Extract<BenchAction, { kind: 'valve' }>): BenchState {
  const valves = { ...state.valves, [action.valve]: action.to } as Valves;
  const displacement = bench.id === 'watermaker';
  // A piston pump that was stopped has to be brought up again.
  const stopped = displacement && (valves.pump === 'off' || valves.feed === 'shut') ? { ...valves, pressure: 'none' as const } : valves;
  const pressed = runs({ valves: stopped }) || stopped.feed === 'open' ? true : state.pressed && stopped.release === 'shut';
  const next = { ...state, valves: stopped, pressed };
  return displacement && action.valve === 'pressure' && action.atOnce && action.to === 'working' ? harmed(next, 'relief') : next;
}

function repaired(bench: Bench, state: BenchState, repair: RepairId): BenchState {
  const { leaves, redraws = [] } = repairOf(repair);
  const count = state.mended.filter((one) => one === repair).length;
  const fresh = drawnErrors(chanceOf(state.seed, `fitted ${repair}`, count));
  return {
    ...state,
    spent: state.spent + priceOf(repair, bench.ground.rig.elements),
    mended: [...state.mended, repair],
    errors: { ...state.errors, ...Object.fromEntries(redraws.map((error) => [error, fresh[error]])) },
    toRinseMinutes: leaves && hasResin(bench) ? RINSE_MINUTES : state.toRinseMinutes,
    tipsCleaned: state.tipsCleaned || repair === 'battery',
    saltAged: repair === 'membrane' ? 1 : state.saltAged,
    out: repair === 'prefilter' || repair === 'carbon' ? 'none' : state.out,
  };
}

const standsStill = ({ valves }: BenchState): Outcome<never> =>
  fail(
    'feed',
    valves.feed,
    'open',
    valves.feed === 'shut'
      ? 'No water runs: open the feed first.'
      : valves.pump === 'off'
        ? 'No water runs: switch the pump on first.'
        : 'No water runs: bring the pressure up first.',
  );

/** What stands in the way of reading kinds with the rig as it is; null where nothing does. */
function inTheWay(bench: Bench, state: BenchState, kinds: readonly KindId[]): Outcome<never> | null {
  if (!runs(state)) return standsStill(state);
  if (state.valves.release === 'open' && isVented(bench.id))
    return fail('vent', 'open', 'shut', 'Water runs out at the vent: shut it before you read.');
  if (state.valves.line === 'off' && kinds.some((kind) => BEHIND_LINE.includes(kind)))
    return fail('line', 'off', 'on', 'The product line is off: nothing reaches the resin. Put it on again first.');
  return null;
}

function readWith(bench: Bench, exercise: Exercise, state: BenchState, kinds: readonly KindId[], minutes: number): Outcome<CarriedOut> {
  const problem = inTheWay(bench, state, kinds);
  if (problem) return problem;
  // Tips that are cleaned are clean when they are read; after a quarter of an hour the rest no longer shows.
  const cleaned = kinds.includes('clean') ? { ...state, tipsCleaned: true } : state;
  const rested = passed(bench, cleaned, minutes, !kinds.includes('later'));
  const truth = truthOf(bench, kinds.includes('later') ? rested : cleaned);
  if (!truth.ok) return truth;
  const counted = { ...state.read };
  const readings = kinds.map((kind): BenchReading => {
    const count = counted[kind] ?? 0;
    counted[kind] = count + 1;
    const value = readWithErrors(kind, truth.value, state.errors, bench.ground.shared, chanceOf(state.seed, kind, count));
    const shown = exercise.slip === kind && count === 0 ? 10 * value : value;
    return { kind, value: shown, countsAs: countedAs(state, kind) };
  });
  return ok({ state: { ...rested, read: counted }, readings });
}

/** The kind a reading counts as for the search: it knows the rig as it is found, and behind the membrane after a while or cleaned. */
function countedAs(state: BenchState, kind: KindId): KindId | null {
  const { valves, out, feedC, ranMinutes, tipsCleaned } = state;
  if (valves.release === 'open' || valves.pressure === 'low' || out !== 'none' || feedC !== null || isMended(state)) return null;
  if (valves.line === 'off')
    return kind === 'productFlow' || kind === 'openFlow' ? 'openFlow' : kind === 'line' || kind === 'tap' ? kind : null;
  const rested = ranMinutes >= RESTED_MINUTES;
  if (kind === 'membrane') return tipsCleaned ? (rested ? null : 'clean') : rested ? 'later' : 'membrane';
  return kind === 'penMembrane' && rested ? null : kind;
}

/** Whether something that was hidden is mended: then the rig no longer shows what was wrong. */
const isMended = ({ hidden, mended }: BenchState): boolean => hidden.some(({ id }) => isMendedBy(mended, id));

function looked(bench: Bench, state: BenchState, check: YesNoId, minutes: number): Outcome<CarriedOut> {
  if (!DRY_CHECKS.includes(check)) {
    const problem = inTheWay(bench, state, []);
    if (problem) return problem;
  }
  const before = opening(state, check === 'inspectSeals');
  const { rig } = bench.ground;
  const rates = stillHidden(state).flatMap(({ id }) => faultOf(id)!.on(rig).answers?.[check] ?? []);
  const yes = chanceOf(state.seed, check).next() < (rates.length > 0 ? Math.max(...rates) : YES_NO_CHECKS[check].falseYes);
  return ok({ state: passed(bench, before, minutes), answer: { check, yes, counts: !isMended(state) } });
}

/**
 * A rig after a row of actions, and what each came to; those that something stood in the way of are passed over.
 *
 * @returns with it, what stood in the way of the last one; null where nothing did
 */
export function replay(
  bench: Bench,
  exercise: Exercise,
  start: BenchState,
  actions: readonly BenchAction[],
): { state: BenchState; entries: BenchEntry[]; refused: string | null } {
  const entries: BenchEntry[] = [];
  let state = start;
  let refused: string | null = null;
  for (const action of actions) {
    const done = act(bench, exercise, state, action);
    refused = done.ok ? null : done.error.message;
    if (!done.ok) continue;
    state = done.value.state;
    entries.push(done.value.entry);
  }
  return { state, entries, refused };
}
