import {
  comparisonOf,
  joined,
  rowBy,
  shownOf,
  sift,
  surenessOf,
  TODAY,
  trainBy,
  turnsOf,
  whyNotThis,
  type Answers,
  type Compared,
  type InputTurn,
  type Row,
  type Shown,
  type Sifted,
  type Why,
} from '@yes-clear/core/choice';
import { reportTrain, trainSentence } from '@yes-clear/core/advice';
import type { System, Train } from '@yes-clear/core/file';
import { ok, type Outcome } from '@yes-clear/core/quantity';
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
/** Membranes solved so far, by the water and the season they were solved on: a price moves none of them. */
let known: { readonly key: string; readonly answers: Map<string, Answers> } = { key: '', answers: new Map() };
function answersFor({ source, instruments, goal, template, train }: System): Map<string, Answers> {
  const key = JSON.stringify([source, instruments, goal.id, template, train.stages.map(({ kind }) => kind)]);
  if (known.key !== key) known = { key, answers: new Map() };
  return known.answers;
}

export function* partSteps({ system, part, parts }: PartAsked): Generator<number, Outcome<Sifted>> {
  const laid = comparisonOf(system, answersFor(system));
  return laid.ok ? ok(yield* sift(laid.value.spaces, laid.value.judging, part, parts)) : laid;
}

export interface Whole {
  readonly sifted: Sifted;
  readonly shown: Shown;
}
/** Parts joined, and what is shown of them. */
export function wholeOf({ system, parts }: { readonly system: System; readonly parts: readonly Sifted[] }): Outcome<Whole> {
  const laid = comparisonOf(system, answersFor(system));
  if (!laid.ok) return laid;
  const sifted = joined(parts, laid.value.spaces);
  const shown = shownOf(system, sifted);
  return shown.ok ? ok({ sifted, shown: shown.value }) : shown;
}

export const turnSteps = ({ system, id }: { readonly system: System; readonly id: string }): Generator<number, Outcome<InputTurn[]>> =>
  turnsOf(system, id, answersFor(system));

export const optionRow = ({ system, id }: { readonly system: System; readonly id: string }): Row | null => rowBy(id, 'asked', system);
export const optionWhy = ({ system, id, sifted }: { readonly system: System; readonly id: string; readonly sifted: Sifted }): Why | null =>
  whyNotThis(id, system, sifted);
export const optionTrain = ({ system, id }: { readonly system: System; readonly id: string }): Outcome<Train> => trainBy(id, system);
export const optionsSure = ({ system, ids }: { readonly system: System; readonly ids: readonly string[] }): Outcome<Compared> =>
  surenessOf(system, ids);

/** Options as pictures, each solved whole as the workbench would. */
export function optionPictures({
  system,
  ids,
}: {
  readonly system: System;
  readonly ids: readonly string[];
}): Readonly<Record<string, { readonly input: DescentInput; readonly sentence: string }>> {
  const tap = tapWater(system.source, system.instruments);
  if (!tap.ok) return {};
  return Object.fromEntries(
    ids.flatMap((id) => {
      const train = id === TODAY ? ok(system.train) : trainBy(id, system);
      if (!train.ok) return [];
      const drawn = { ...system, train: train.value };
      const report = reportTrain(drawn, tap.value.water, {}, undefined, tap.value);
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
