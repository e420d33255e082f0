import { type Finding, dialBlend, type DialBlend, type StageOf, type TrainUse, type WaterAt } from '@yes-clear/core/stage';
import { type Answers, systemFromTemplate } from '@yes-clear/core/template';
import { ok, type Outcome } from '@yes-clear/core/quantity';
import {
  dialShare,
  fitting,
  trainTitle,
  footLine,
  loopReport,
  moreWater,
  reportTrain,
  seasonMonths,
  trainSentence,
  type LoopReport,
  type MeetingShare,
  type SeasonMonth,
  type WaterOption,
} from '@yes-clear/core/advice';
import { senmlTable } from '@yes-clear/core/log';
import { trimAdvice, type BucketResult, type TrimAdvice } from '@yes-clear/core/commission';
import type { System, TemplateId, Train } from '@yes-clear/core/file';
import { seasonSpan, tapWater, type MembraneOperation, type SolvedTrain } from '@yes-clear/core/train';
import { settleWater, type CompletedWater } from '@yes-clear/core/water';
import { descentInput } from '../descent/descentInput';
import type { DescentInput } from '../descent/drawing';

import { offerPages } from './offerPages';
import { routesOf, type RoutesCompared } from '@yes-clear/core/choice';
import { yearRun } from './yearAhead';
import { optionPictures, optionRow, optionsSure, optionTrain, optionWhy, wholeOf } from './optionSearch';

/** A train as two answers give it. */
export interface FirstSight {
  readonly input: DescentInput;
  readonly sentence: string;
  readonly title: string;
  readonly foot: readonly (readonly [figure: string, says: string])[];
  readonly findings: readonly Finding[];
  readonly template: TemplateId;
}

/** What a page asks that takes many solves; the last answer stands until the next one comes. */
export const QUESTIONS = {
  /** What the train makes in each month of the year; none without a membrane. */
  seasons: (system: System): readonly SeasonMonth[] => {
    const water = tapWater(system.source, system.instruments);
    if (!water.ok || !system.train.stages.some((stage) => stage.kind === 'membrane')) return [];
    const state = settleWater(water.value.water);
    return state.ok ? seasonMonths(system, water.value.water, state.value.ec25UScm, seasonSpan(system.source, system.instruments)) : [];
  },
  /** Ways to more water, each solved whole. */
  moreWater: ({ system, use }: { readonly system: System; readonly use: TrainUse }): readonly WaterOption[] => {
    const water = tapWater(system.source, system.instruments);
    return water.ok ? moreWater(system, water.value.water, use) : [];
  },
  /** A loop through a week of draws; null without one. */
  loop: ({
    system,
    train,
    solved,
  }: {
    readonly system: System;
    readonly train: Train;
    readonly solved: SolvedTrain;
  }): Outcome<LoopReport> | null => loopReport({ ...system, train }, solved),
  /** What to cut off a restrictor after a measurement. */
  trim: ({
    at,
    bucket,
    target,
    form,
  }: {
    readonly at: MembraneOperation;
    readonly bucket: BucketResult;
    readonly target: number;
    readonly form: StageOf<'membrane'>['restrictor']['form'];
  }): Outcome<TrimAdvice> => trimAdvice(at.unit, at.feed, at.conditions, bucket, target, form),
  /** What a cartridge's dial blends over its whole travel, and the lime of each blend at a boiler's heat. */
  blends: ({
    stage,
    before,
    bypasses,
  }: {
    readonly stage: StageOf<'decarboniser'>;
    readonly before: WaterAt;
    readonly bypasses: readonly number[];
  }): readonly (DialBlend | null)[] => bypasses.map((bypass) => dialBlend(stage, before, bypass)),
  /** What two answers give: the fitting train as it would stand, in a picture and a few words. */
  firstSight: (answers: Answers): Outcome<FirstSight> => {
    const { system, report } = fitting(answers, { id: 'first', site: '', at: '2026-01-01T00:00:00Z' });
    if (!report.ok) return report;
    return ok({
      input: descentInput(system, report.value, [], null),
      sentence: trainSentence(report.value.solved, system.units),
      title: trainTitle(system, report.value),
      foot: footLine(system, report.value),
      findings: report.value.findings.slice(0, 3),
      template: system.template,
    });
  },
  /** The share past a cartridge at which the goal is met; null where no water reaches it. */
  dial: ({
    system,
    solved,
    stageId,
    tap,
  }: {
    readonly system: System;
    readonly solved: SolvedTrain;
    readonly stageId: string;
    readonly tap: CompletedWater;
  }): MeetingShare | null => dialShare(system, solved, stageId, tap),
  /** Resin alone against a membrane first, for this job. */
  routes: ({ system, use }: { readonly system: System; readonly use: TrainUse }): RoutesCompared | null => {
    const found = routesOf(system, use);
    return found?.ok ? found.value : null;
  },
  /** Parts of a search over options, joined. */
  optionsWhole: wholeOf,
  /** One option in full; why it is not the one to take; the train it stands for; some as pictures; how sure a comparison is. */
  optionRow,
  optionWhy,
  optionTrain,
  optionPictures,
  optionsSure,
  /** The coming years of a system. */
  yearRun,
  /** What an offer carries beside its own pages. */
  offerPages,
  /** A file of sensor figures as a table. */
  senmlTable: ({ text, nowMs }: { readonly text: string; readonly nowMs: number }): Outcome<string> => senmlTable(text, nowMs),
  /** Each template as it would stand on a middling tap. */
  templates: (
    which: readonly TemplateId[],
  ): Readonly<Partial<Record<TemplateId, { readonly input: DescentInput; readonly sentence: string }>>> =>
    Object.fromEntries(
      which.flatMap((id) => {
        const system = systemFromTemplate({ id, name: '', site: '', template: id, at: '2026-01-01T00:00:00Z' });
        const water = tapWater(system.source, system.instruments);
        const report = water.ok ? reportTrain(system, water.value.water, {}, undefined, water.value) : null;
        return report?.ok
          ? [
              [
                id,
                { input: descentInput(system, report.value, [], null), sentence: trainSentence(report.value.solved, system.units) },
              ] as const,
            ]
          : [];
      }),
    ),
};
export type Question = keyof typeof QUESTIONS;
export type Asked<Q extends Question> = Parameters<(typeof QUESTIONS)[Q]>[0];
export type Answer<Q extends Question> = ReturnType<(typeof QUESTIONS)[Q]>;
