import {
  benchOf,
  joined,
  rowBy,
  shownOf,
  siftOptions,
  surenessOf,
  TODAY,
  trainBy,
  turnsOf,
  whyNotThis,
  type Compared,
  type Heads,
  type InputTurn,
  type OptionsSifted,
  type Row,
  type Shown,
  type Why,
} from '@yes-clear/core/choice';
import { reportTrain, trainSentence } from '@yes-clear/core/advice';
import type { System, Train } from '@yes-clear/core/file';
import { ok, type Outcome } from '@yes-clear/core/quantity';
import type { TrainUse } from '@yes-clear/core/stage';
import { tapWater } from '@yes-clear/core/train';
import { descentInput } from '../descent/descentInput';
import type { DescentInput } from '../descent/drawing';

/** The search over a system's options, as the workers do it: part by part, joined, and the questions after it. */

export interface PartAsked {
  readonly system: System;
  /** Which of so many parts: one a worker. */
  readonly part: number;
  readonly parts: number;
}
/** Heads solved so far, by all that decides what they are: a price or a wall moves none of them. */
let known: { readonly key: string; readonly heads: Heads } = { key: '', heads: new Map() };
function headsFor(system: System): Heads {
  const key = JSON.stringify({ ...system, prices: null, choice: null, goal: { ...system.goal, demand: null } });
  if (known.key !== key) known = { key, heads: new Map() };
  return known.heads;
}

export function* partSteps({ system, part, parts }: PartAsked): Generator<number, Outcome<OptionsSifted>> {
  const laid = benchOf(system, headsFor(system));
  return laid.ok ? ok(yield* siftOptions(laid.value, part, parts)) : laid;
}

export interface Whole {
  readonly sifted: OptionsSifted;
  readonly shown: Shown;
}
/** A system, and what the log says its stages have been through. */
export interface UsedSystem {
  readonly system: System;
  readonly use: TrainUse;
}
/** Parts joined, and what is shown of them. */
export function wholeOf({ system, use, parts }: UsedSystem & { readonly parts: readonly OptionsSifted[] }): Outcome<Whole> {
  const laid = benchOf(system, headsFor(system));
  if (!laid.ok) return laid;
  const sifted = joined(parts, laid.value.spaces);
  return ok({ sifted, shown: shownOf(laid.value, sifted, use) });
}

export const turnSteps = ({ system, id }: { readonly system: System; readonly id: string }): Generator<number, Outcome<InputTurn[]>> =>
  turnsOf(system, id, headsFor(system));

export const optionRow = ({ system, use, id }: UsedSystem & { readonly id: string }): Row | null => rowBy(id, 'asked', system, use);
export const optionWhy = ({
  system,
  id,
  sifted,
}: {
  readonly system: System;
  readonly id: string;
  readonly sifted: OptionsSifted;
}): Why | null => whyNotThis(id, system, sifted);
export const optionTrain = ({ system, id }: { readonly system: System; readonly id: string }): Outcome<Train> => trainBy(id, system);
export const optionsSure = ({ system, use, ids }: UsedSystem & { readonly ids: readonly string[] }): Outcome<Compared> =>
  surenessOf(system, ids, use);

/** Options as pictures, each solved whole as the workbench would. */
export function optionPictures({
  system,
  use,
  ids,
}: UsedSystem & { readonly ids: readonly string[] }): Readonly<
  Record<string, { readonly input: DescentInput; readonly sentence: string }>
> {
  const tap = tapWater(system.source, system.instruments);
  if (!tap.ok) return {};
  return Object.fromEntries(
    ids.flatMap((id) => {
      const train = id === TODAY ? ok(system.train) : trainBy(id, system);
      if (!train.ok) return [];
      const drawn = { ...system, train: train.value };
      const report = reportTrain(drawn, tap.value.water, id === TODAY ? use : {}, undefined, tap.value);
      return report.ok
        ? [
            [
              id,
              { input: descentInput(drawn, report.value, [], null), sentence: trainSentence(report.value.solved, system.units) },
            ] as const,
          ]
        : [];
    }),
  );
}
