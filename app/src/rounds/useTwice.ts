import { likelySameWork, type MergeChoices, type Reading, type Service } from '@yes-clear/core/file';
import { sameVisits } from '@yes-clear/core/log';
import { computed, ref, type ComputedRef } from 'vue';
import type { Clash } from '../store/transfer';

/** Of a visit written down twice, which reading counts. */
export type VisitAnswer = 'here' | 'there' | 'two';

export interface Twice {
  readonly visits: (clash: Clash) => readonly (readonly [Reading, Reading])[];
  readonly works: (clash: Clash) => readonly (readonly [Service, Service])[];
  readonly visitOf: (pair: readonly [Reading, Reading]) => VisitAnswer | null;
  readonly workOf: (pair: readonly [Service, Service]) => 'one' | 'two' | null;
  readonly sayVisit: (pair: readonly [Reading, Reading], answer: VisitAnswer) => void;
  readonly sayWork: (pair: readonly [Service, Service], answer: 'one' | 'two') => void;
  /** What was said, as joining copies takes it. */
  readonly said: ComputedRef<Pick<MergeChoices, 'once' | 'isOneWork'>>;
}

const keyOf = (pair: readonly { readonly id: string }[]): string => pair.map(({ id }) => id).join(' ');

/** Visits and work that two keepers may have written down each, and what a person says of them. */
export function useTwice(clashes: readonly Clash[]): Twice {
  const visits = new Map(
    clashes.map((clash) => [clash, sameVisits(clash.here.system, clash.compared.readingsHere, clash.compared.readingsThere)]),
  );
  const works = new Map(clashes.map((clash) => [clash, likelySameWork(clash.here.system.services, clash.there.system.services)]));
  const saidOfVisits = ref(new Map<string, VisitAnswer>());
  const saidOfWork = ref(new Map<string, 'one' | 'two'>());
  const said = computed(() => {
    const once = new Set<string>();
    for (const pair of [...visits.values()].flat()) {
      const answer = saidOfVisits.value.get(keyOf(pair));
      if (answer === 'here') once.add(pair[1].id);
      if (answer === 'there') once.add(pair[0].id);
    }
    return { once, isOneWork: (one: Service, other: Service) => saidOfWork.value.get(keyOf([one, other])) === 'one' };
  });
  return {
    visits: (clash) => visits.get(clash) ?? [],
    works: (clash) => works.get(clash) ?? [],
    visitOf: (pair) => saidOfVisits.value.get(keyOf(pair)) ?? null,
    workOf: (pair) => saidOfWork.value.get(keyOf(pair)) ?? null,
    sayVisit: (pair, answer) => (saidOfVisits.value = new Map(saidOfVisits.value).set(keyOf(pair), answer)),
    sayWork: (pair, answer) => (saidOfWork.value = new Map(saidOfWork.value).set(keyOf(pair), answer)),
    said,
  };
}
