import type { Diagnosis } from './diagnose';
import { YES_NO_CHECKS, type KindId, type YesNoId } from './kinds';
import type { NextCheck } from './nextCheck';
import { faultOf } from './catalogue';
import type { NodeTable } from './nodes';

/** What is to be done after what is known: read again, check, mend, or try. */
export type Decision =
  /** A reading is rather bad than not: it is taken again before anything else. */
  | { readonly kind: 'readAgain'; readonly reading: number }
  /** No cause fits what was read. */
  | { readonly kind: 'nothingFits'; readonly readings: readonly number[] }
  | { readonly kind: 'check'; readonly check: NextCheck }
  /** What is to be done is plain. */
  | { readonly kind: 'remedy'; readonly cause: number; readonly probability: number }
  /** More readings will not decide: the cheapest trial for its odds. */
  | { readonly kind: 'trial'; readonly cause: number; readonly probability: number };

/** Odds of a remedy at which it is done, and at which it is done where it costs a membrane or more than an hour. */
const SURE = 0.9;
const SURE_OF_DEAR = 0.95;
const DEAR_MINUTES = 60;
/** A check that tells less is not worth the walk, bits. */
export const LEAST_BITS = 0.05;
/** A look or a question comes first where the best check is less than so many times better. */
const FREE_WITHIN = 2;
/** Minutes a part counts for where a trial is weighed (product assumption). */
const MINUTES_PER_PART = 30;

/** What is done about a cause: causes with the same action are one remedy. */
export const actionOf = (id: string): string => faultOf(id)?.action ?? id;

/** Odds of what is done about each cause: its own and those of causes with the same action. */
export function remedyOdds(table: NodeTable, { causes }: Diagnosis): number[] {
  const sums = new Map<string, number>();
  for (const { id, probability } of causes) sums.set(actionOf(id), (sums.get(actionOf(id)) ?? 0) + probability);
  return table.hypotheses.map(({ id }) => sums.get(actionOf(id))!);
}

/**
 * What comes next (science of faults, 3).
 *
 * @param checks what could be made, see `nextChecks`
 */
export function decide(table: NodeTable, diagnosis: Diagnosis, checks: readonly NextCheck[]): Decision {
  const doubtful = diagnosis.bad.map((p, i) => ({ p, i })).filter(({ p }) => p > 0.5);
  if (diagnosis.misfit) return { kind: 'nothingFits', readings: doubtful.map(({ i }) => i) };
  const worst = doubtful.sort((a, b) => b.p - a.p)[0];
  if (worst && !readTwice(diagnosis, worst.i)) return { kind: 'readAgain', reading: worst.i };
  const odds = remedyOdds(table, diagnosis);
  const best = diagnosis.causes.reduce((most, { probability }, h) => (probability > diagnosis.causes[most]!.probability ? h : most), 0);
  if (odds[best]! >= sureOf(table.hypotheses[best]!.id)) return { kind: 'remedy', cause: best, probability: odds[best]! };
  const worth = checks.filter(({ informationBits }) => informationBits >= LEAST_BITS);
  const first = worth[0];
  if (!first) {
    const cause = cheapest(diagnosis);
    return { kind: 'trial', cause, probability: odds[cause]! };
  }
  const free = worth.find(({ id, score }) => isFree(id) && FREE_WITHIN * score >= first.score);
  return { kind: 'check', check: free ?? first };
}

/** Whether a reading has been taken again already: then the others have spoken. */
const readTwice = ({ readings }: Diagnosis, i: number): boolean => readings.filter(({ kind }) => kind === readings[i]!.kind).length > 1;

const isFree = (id: KindId | YesNoId): boolean => id in YES_NO_CHECKS && 'free' in YES_NO_CHECKS[id as YesNoId];

/** Odds from which a cause's remedy is done. */
export function sureOf(id: string): number {
  const cost = faultOf(id)?.cost;
  return cost && (cost.parts.includes('membrane') || cost.minutes > DEAR_MINUTES) ? SURE_OF_DEAR : SURE;
}

/** The cause whose remedy is the best trial: most odds for its minutes and parts; healthy is none. */
function cheapest({ causes }: Diagnosis): number {
  const value = ({ id, probability }: Diagnosis['causes'][number]): number => {
    const cost = faultOf(id)?.cost;
    return cost && id !== 'healthy' ? probability / (cost.minutes + MINUTES_PER_PART * cost.parts.length + 1) : 0;
  };
  return causes.reduce((most, cause, h) => (value(cause) > value(causes[most]!) ? h : most), 0);
}

/** Odds from which a fault no meter sees is named beneath the result. */
const NAMED_FROM = 0.05;

/** Faults no meter can see that are not excluded, with what harm they do and what tells of them. */
export const notExcluded = ({
  causes,
}: Diagnosis): { readonly id: string; readonly probability: number; readonly harm: string; readonly kit: YesNoId }[] =>
  causes.flatMap(({ id, probability }) => {
    const unseen = faultOf(id)?.unseen;
    return unseen && probability >= NAMED_FROM ? [{ id, probability, ...unseen }] : [];
  });
