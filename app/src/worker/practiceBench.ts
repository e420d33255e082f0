import {
  benchSteps,
  exerciseOf,
  hasValve,
  hintOf,
  isVented,
  judge,
  pathOf,
  priceOf,
  repairOf,
  repairsFor,
  replay,
  soundTruth,
  startBench,
  toldApart,
  toolsOf,
  type Bench,
  type BenchAction,
  type BenchEntry,
  type BenchState,
  type BenchSystemId,
  type Declaration,
  type Exercise,
  type Judgement,
  type KindId,
  type PathStep,
  type RepairId,
  type Tool,
  type YesNoId,
} from '@yes-clear/core/fault';
import { reportTrain, trainSentence } from '@yes-clear/core/advice';
import type { System } from '@yes-clear/core/file';
import { probeRoles } from '@yes-clear/core/log';
import { ok, PPM_PER_USCM, words, type Outcome, type UnitPreference } from '@yes-clear/core/quantity';
import { tapWater } from '@yes-clear/core/train';
import { descentInput } from '../descent/descentInput';
import type { DescentInput } from '../descent/drawing';

/** What is asked of the practice bench: an exercise and everything done in it so far, in its order. */
export interface PracticeAsked {
  readonly exercise: string;
  readonly seed: number;
  readonly actions: readonly BenchAction[];
  readonly said: Declaration | null;
  readonly units: UnitPreference;
}
/** A repair that can be made, with what it costs. */
export interface OfferedRepair {
  readonly id: RepairId;
  readonly label: string;
  readonly minutes: number;
  readonly price: number;
  readonly opens: boolean;
}
/** What the page of the bench shows. */
export interface PracticeView {
  readonly exercise: Exercise;
  readonly state: Pick<BenchState, 'minutes' | 'spent' | 'valves' | 'out' | 'feedC' | 'toRinseMinutes'>;
  readonly entries: readonly BenchEntry[];
  /** What stood in the way of the last thing asked, if anything. */
  readonly refused: string | null;
  readonly picture: { readonly input: DescentInput; readonly sentence: string };
  readonly tools: readonly Tool[];
  readonly repairs: readonly OfferedRepair[];
  /** Causes this rig can have, by the catalogue's order. */
  readonly causes: readonly string[];
  /** What the sheet of the hand-over says; null where there is none. */
  readonly handOver: Readonly<Partial<Record<KindId, number>>> | null;
  readonly startBits: number;
  readonly steps: readonly PathStep[];
  /** The check a hint that was just asked for names; null where what is to be done is plain. */
  readonly hint: { readonly check: KindId | YesNoId | null; readonly separates: readonly [string, string] | null } | null;
  readonly judged: (Omit<Judgement, 'path' | 'optimal'> & { readonly optimal: readonly PathStep[] }) | null;
}

/** Rigs laid down so far: an exercise more on one asks for no new one. */
const benches = new Map<string, Bench>();

/** Plays an exercise from its start to where it stands, in steps: the first on a rig lays down what every cause would show. */
export function* practiceSteps(asked: PracticeAsked): Generator<number, Outcome<PracticeView>> {
  const found = exerciseOf(asked.exercise);
  if (!found.ok) return found;
  const exercise = found.value;
  const bench = yield* keptBench(exercise.system, exercise.baseline);
  if (!bench.ok) return bench;
  return played(bench.value, exercise, asked);
}

function* keptBench(id: BenchSystemId, baseline: boolean): Generator<number, Outcome<Bench>> {
  const key = `${id} ${baseline}`;
  const known = benches.get(key);
  if (known) return ok(known);
  const made = yield* benchSteps(id, baseline);
  if (made.ok) benches.set(key, made.value);
  return made;
}

function played(bench: Bench, exercise: Exercise, { seed, actions, said, units }: PracticeAsked): Outcome<PracticeView> {
  const { state, entries, refused } = replay(bench, exercise, startBench(bench, exercise, seed), actions);
  const path = pathOf(bench, [], entries);
  if (!path.ok) return path;
  const { table, ground } = bench;
  const judged = said ? judge(bench, exercise, state, entries, said) : null;
  if (judged && !judged.ok) return judged;
  const picture = pictureOf(bench, exercise, state, entries, units);
  if (!picture.ok) return picture;
  const hinted = actions.at(-1)?.kind === 'hint' && refused === null;
  const check = hinted ? hintOf(bench, path.value.last) : null;
  const causes = table.hypotheses.map(({ id }) => id);
  return ok({
    exercise,
    state,
    entries,
    refused,
    picture: picture.value,
    tools: toolsOf(ground.available),
    repairs: repairsFor(causes).map((id) => {
      const { label, minutes, opens = false } = repairOf(id);
      return { id, label, minutes, opens, price: priceOf(id, ground.rig.elements) };
    }),
    causes,
    handOver: exercise.baseline ? handOverOf(bench) : null,
    startBits: path.value.startBits,
    steps: path.value.steps,
    hint: hinted ? { check, separates: check && toldApart(table, path.value.last, check) } : null,
    judged: judged && { ...judged.value, optimal: judged.value.optimal.steps },
  });
}

/** Kinds that are written down at a hand-over. */
const ON_SHEET: readonly KindId[] = [
  'tap',
  'membrane',
  'product',
  'blendHardness',
  'line',
  'inlet',
  'temperature',
  'productFlow',
  'wasteFlow',
];

function handOverOf(bench: Bench): PracticeView['handOver'] {
  const sound = soundTruth(bench);
  const has = new Set(bench.ground.available.kinds);
  return sound.ok ? Object.fromEntries(ON_SHEET.filter((kind) => has.has(kind)).map((kind) => [kind, sound.value[kind]])) : null;
}

/** The rig as planned, its valves as they stand, and at the probes what was read on it: nothing else of it is known. */
function pictureOf(
  bench: Bench,
  { baseline }: Exercise,
  state: BenchState,
  entries: readonly BenchEntry[],
  units: UnitPreference,
): Outcome<PracticeView['picture']> {
  const system: System = { ...bench.system, units };
  const water = tapWater(system.source, system.instruments);
  if (!water.ok) return water;
  const report = reportTrain(system, water.value.water, {}, undefined, water.value);
  if (!report.ok) return report;
  const planned = descentInput(system, report.value, [], null);
  const roles = probeRoles(system);
  const sound = soundTruth(bench);
  const kindsAt: readonly (readonly [string | undefined, readonly KindId[]])[] = [
    [roles.tap?.id, ['tap']],
    [roles.afterMembrane?.id, ['membrane', 'later', 'clean']],
    [roles.afterResin?.id === roles.afterMembrane?.id ? undefined : roles.afterResin?.id, ['product']],
  ];
  const say = words(units);
  return ok({
    sentence: trainSentence(report.value.solved, system.units),
    input: {
      ...planned,
      tapTexts: ['Tap'],
      waste: planned.waste && { ...planned.waste, texts: ['waste to drain', 'waste'] },
      notes: {},
      probes: planned.probes.map((probe) => {
        const kinds = kindsAt.find(([id]) => id === probe.id)?.[1] ?? [];
        const read = entries.flatMap(({ readings }) => readings).findLast(({ kind }) => kinds.includes(kind));
        const latest = read ? read.value / PPM_PER_USCM : null;
        const first = baseline && sound.ok && kinds[0] ? sound.value[kinds[0]] / PPM_PER_USCM : null;
        return {
          ...probe,
          texts: latest === null ? probe.texts : [`read ${say.water(latest)}`],
          latest: latest === null ? null : Math.max(latest, 0.1),
          baseline: first === null ? null : Math.max(first, 0.1),
        };
      }),
      valves: valveMarks(bench, state.valves),
    },
  });
}

function valveMarks({ id }: Bench, valves: BenchState['valves']): NonNullable<DescentInput['valves']> {
  const mark = (valve: keyof BenchState['valves'], on: NonNullable<DescentInput['valves']>[number]['on'], text: string, open: boolean) =>
    hasValve(id, valve) ? [{ id: valve, on, text, open }] : [];
  return [
    ...mark('feed', 'feed', `feed ${valves.feed}`, valves.feed === 'open'),
    ...mark('pump', 'pump', `pump ${valves.pump}`, valves.pump === 'on'),
    ...mark(
      'release',
      isVented(id) ? 'membrane' : 'waste',
      `${isVented(id) ? 'vent' : 'flush'} ${valves.release}`,
      valves.release === 'open',
    ),
    ...mark('line', 'product', `line ${valves.line}`, valves.line === 'on'),
    ...mark('outlet', 'outlet', valves.outlet, valves.outlet === 'to tank'),
  ];
}
