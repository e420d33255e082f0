import { same, type Train } from '../file';
import type { Stage } from '../stage';

/** What became of a train between two states. */
export interface TrainChange {
  readonly added: readonly Stage[];
  readonly removed: readonly Stage[];
  /** Stages that are built otherwise: another element, a larger vessel. */
  readonly rebuilt: readonly { readonly before: Stage; readonly after: Stage }[];
  /** Stages that stand elsewhere in the order of those that stayed. */
  readonly moved: readonly Stage[];
}

/** What is set, worn or read of a stage, and does not make it another piece. */
const SET_BY_HAND: ReadonlySet<string> = new Set([
  'name',
  'fittedOn',
  'loading',
  'waterFactor',
  'saltFactor',
  'carriedEq',
  'packing',
  'floorUScm',
  'bypass',
  'bypassShare',
  'restrictor',
  'label',
  'valve',
  'recycleLPerH',
  'recycleKv',
  'startShare',
  'stopShare',
  'prechargeBar',
  'rinseEveryDays',
  'reserveShare',
  'saltGPerL',
]);

const piece = (stage: Stage): Record<string, unknown> => Object.fromEntries(Object.entries(stage).filter(([key]) => !SET_BY_HAND.has(key)));

/** Stages that moved: those outside the longest run that kept its order. */
function movedAmong(before: readonly string[], after: readonly string[]): Set<string> {
  const kept = after.filter((id) => before.includes(id));
  const at = new Map(before.map((id, i) => [id, i]));
  const longest: string[][] = [];
  kept.forEach((id, i) => {
    let best: string[] = [];
    for (let k = 0; k < i; k++) if (at.get(kept[k]!)! < at.get(id)! && longest[k]!.length > best.length) best = longest[k]!;
    longest.push([...best, id]);
  });
  const stays = new Set(longest.reduce<string[]>((best, one) => (one.length > best.length ? one : best), []));
  return new Set(kept.filter((id) => !stays.has(id)));
}

/** What has to be taken out, put in, moved or built otherwise to come from one train to another. */
export function trainChange(before: Train, after: Train): TrainChange {
  const stagesOf = (train: Train): readonly Stage[] => [...train.stages, ...train.branches.flatMap(({ stages }) => stages)];
  const [old, now] = [stagesOf(before), stagesOf(after)];
  const was = new Map(old.map((stage) => [stage.id, stage]));
  const is = new Map(now.map((stage) => [stage.id, stage]));
  // One id that became another kind is another piece.
  const stayed = (id: string): boolean => was.get(id)?.kind === is.get(id)?.kind;
  const moved = movedAmong(old.map(({ id }) => id).filter(stayed), now.map(({ id }) => id).filter(stayed));
  return {
    added: now.filter(({ id }) => !was.has(id) || !stayed(id)),
    removed: old.filter(({ id }) => !is.has(id) || !stayed(id)),
    rebuilt: now.flatMap((stage) => {
      const from = was.get(stage.id);
      return from && from.kind === stage.kind && !same(piece(from), piece(stage)) ? [{ before: from, after: stage }] : [];
    }),
    moved: now.filter(({ id }) => moved.has(id)),
  };
}

/** Whether anything has to be built to come from one train to the other. */
export const isUpgrade = ({ added, removed, rebuilt, moved }: TrainChange): boolean =>
  added.length + removed.length + rebuilt.length + moved.length > 0;
