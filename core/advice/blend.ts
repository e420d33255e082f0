import type { System } from '../file';
import type { LimitCheck } from '../goal';
import type { Stage, StageOf } from '../stage';
import { continued, solveTrain, withTail, type SolvedTrain, type Station } from '../train';
import { mixWaters, settleWater, type CompletedWater, type Water } from '../water';
import { judgeTrain, judgeUse } from './judged';

/**
 * How much goes past a membrane or a cartridge so that the goal is met: one answer for what is proposed in a finding, for
 * the dial of a cartridge and for what is compared. What is tried is judged whole, all that is drawn from the train with it.
 */

/** A share led past, and what of the goal it still misses. */
export interface MeetingShare {
  /** The middle of the widest stretch that misses fewest limits. */
  readonly share: number;
  /** That stretch. */
  readonly from: number;
  readonly to: number;
  /** What is missed there; empty where everything is met. */
  readonly missed: readonly LimitCheck[];
}

/** More than that is no longer a membrane's or a cartridge's work. */
const MOST_SHARE = 0.95;
const STEPS = 20;

/** Outside its limit, if only by an assumption; what a share cannot mend counts the same at every share, chlorine is a carbon's work. */
const outside = (checks: readonly LimitCheck[]): LimitCheck[] =>
  checks.filter(({ side, limit }) => side !== null && limit.quantity !== 'chlorineMgL');
/** What is missed for sure: what an assumption decides stands in no proposal's way. */
const missedOf = (checks: readonly LimitCheck[]): LimitCheck[] => outside(checks).filter(({ verdict }) => verdict === 'missed');

/** The widest run of places with the fewest misses. */
function widest(counts: readonly number[]): readonly [from: number, to: number] {
  const fewest = Math.min(...counts);
  let best: readonly [number, number] = [0, -1];
  for (let from = 0; from < counts.length; from++) {
    if (counts[from] !== fewest) continue;
    let to = from;
    while (counts[to + 1] === fewest) to += 1;
    if (to - from > best[1] - best[0]) best = [from, to];
    from = to;
  }
  return best;
}

/**
 * The share at which most of a goal is met, looked for on a grid and finer round the best of it.
 *
 * @param checksAt every limit held against the water at a share; null where it cannot be worked out
 */
export function shareMeeting(checksAt: (share: number) => readonly LimitCheck[] | null): MeetingShare | null {
  const grid = (from: number, to: number): number[] => Array.from({ length: STEPS + 1 }, (_, k) => from + ((to - from) * k) / STEPS);
  const counted = (shares: readonly number[]): number[] =>
    shares.map((share) => {
      const checks = checksAt(share);
      return checks ? outside(checks).length : Infinity;
    });
  const coarse = grid(0, MOST_SHARE);
  const [a, b] = widest(counted(coarse));
  const fine = grid(coarse[Math.max(0, a - 1)]!, coarse[Math.min(STEPS, b + 1)]!);
  const [from, to] = widest(counted(fine)).map((place) => fine[place]!) as [number, number];
  const share = (from + to) / 2;
  const checks = checksAt(share);
  return checks && { share, from, to, missed: missedOf(checks) };
}

/** A solved train up to a stage, with nothing yet of what comes after. */
const upTo = (solved: SolvedTrain, stations: readonly Station[], places: number): SolvedTrain => ({
  ...solved,
  stations: stations.slice(0, places),
  resins: [],
  carbons: [],
});

/** Every limit of the train and of what is drawn from it. */
function allChecks(system: System, solved: SolvedTrain, tapWater: Water, tap: CompletedWater | null): LimitCheck[] {
  const own = judgeTrain(system, solved, tapWater, tap).checks;
  const uses = solved.branches.flatMap(({ id, stations }) => {
    const branch = system.train.branches.find((one) => one.id === id);
    return branch ? judgeUse(system, branch, stations.at(-1)!, tapWater, tap).checks : [];
  });
  return [...own, ...uses];
}

/**
 * The share of the product led past the membrane that meets the goal, all uses with it.
 *
 * @param solved with the membrane as it stands
 * @param after the stage it is led from; null: the membrane's own feed
 * @returns null where there is no membrane, or nothing comes through it
 */
export function membraneShare(system: System, solved: SolvedTrain, after: string | null, tap: CompletedWater | null): MeetingShare | null {
  const at = system.train.stages.findIndex(({ id }) => id === solved.unitStageId);
  const past = after === null ? solved.stations[at] : solved.stations.find((one) => one.after === after);
  const made = solved.unit?.permeate;
  if (at < 0 || !past || !made) return null;
  const feed = solved.stations[at]!.water;
  const permeate: Water = { ...made, mgL: { ...made.mgL, chlorine: feed.mgL.chlorine, chloramine: feed.mgL.chloramine } };
  const tapWater = solved.stations[0]!.water;
  return shareMeeting((share) => {
    const mixed = mixWaters([
      { water: permeate, volumeL: 1 - share },
      { water: past.water, volumeL: share },
    ]);
    const state = mixed.ok ? settleWater(mixed.value) : mixed;
    if (!mixed.ok || !state.ok) return null;
    const ahead = upTo(solved, solved.stations, at + 1);
    const blended = { ...solved.stations[at + 1]!, water: mixed.value, state: state.value };
    const whole = continued(system.train, { ...ahead, stations: [...ahead.stations, blended] }, system.train.stages.slice(at + 1));
    return whole.ok ? allChecks(system, whole.value, tapWater, tap) : null;
  });
}

/** The same for the dial of a cartridge, in the train or in one of its uses. */
export function dialShare(system: System, solved: SolvedTrain, stageId: string, tap: CompletedWater | null): MeetingShare | null {
  const { train } = system;
  const tapWater = solved.stations[0]!.water;
  const turned = (stages: readonly Stage[], share: number): readonly Stage[] =>
    stages.map((stage) => (stage.id === stageId ? { ...(stage as StageOf<'decarboniser'>), bypass: share } : stage));
  const at = train.stages.findIndex(({ id }) => id === stageId);
  if (at >= 0)
    return shareMeeting((share) => {
      const whole = continued(train, upTo(solved, solved.stations, at + 1), turned(train.stages, share).slice(at));
      return whole.ok ? allChecks(system, whole.value, tapWater, tap) : null;
    });
  const branch = train.branches.find(({ stages }) => stages.some(({ id }) => id === stageId));
  const use = branch && solved.branches.find(({ id }) => id === branch.id);
  if (!branch || !use) return null;
  const place = branch.stages.findIndex(({ id }) => id === stageId);
  return shareMeeting((share) => {
    const found = withTail(upTo(solved, use.stations, place + 1), turned(branch.stages, share).slice(place));
    return found.ok ? judgeUse(system, branch, found.value.stations.at(-1)!, tapWater, tap).checks : null;
  });
}

/** The dial of a cartridge put to a water on its own, as one is chosen for it. */
export function newDialShare(system: System, stages: readonly Stage[], stageId: string, tap: CompletedWater): MeetingShare | null {
  const alone = { ...system, train: { ...system.train, stages: [...stages], branches: [], loop: null, probes: [] } };
  const solved = solveTrain(alone.train, alone.source, tap.water);
  return solved.ok ? dialShare(alone, solved.value, stageId, tap) : null;
}
