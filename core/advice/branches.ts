import type { Branch, System } from '../file';
import { against, allMet, assumedText, missText, type Judgement, type LimitCheck } from '../goal';
import type { Finding } from '../stage';
import type { SolvedBranch, SolvedTrain, Station } from '../train';
import { branchStandings, sayings } from '../life';
import { inSentence, words } from '../quantity';
import type { CompletedWater, Water } from '../water';
import { judgeUse } from './judged';
import { withoutLimits } from './unset';

/** One use of a counter: its water, and what is to be said of it. */
export interface BranchReport {
  readonly branch: Branch;
  readonly stations: readonly Station[];
  readonly verdict: Judgement['verdict'];
  readonly checks: Judgement['checks'];
  readonly findings: readonly Finding[];
}

/** What each branch of a train makes of its water. */
export const branchReports = (system: System, solved: SolvedTrain, tap: CompletedWater | null = null): BranchReport[] =>
  system.train.branches.flatMap((branch) => {
    const found = solved.branches.find((candidate) => candidate.id === branch.id);
    return found ? [reportOf(system, branch, found, tap)] : [];
  });

function reportOf(system: System, branch: Branch, { stations }: SolvedBranch, tap: CompletedWater | null): BranchReport {
  const end = stations[stations.length - 1]!;
  const { verdict, checks } = judgeUse(system, branch, end, stations[0]!.water, tap);
  const own = branchStandings(branch, stations, system.units, system.source.turbidityNTU).flatMap(sayings);
  return { branch, stations, verdict, checks, findings: [goalFinding(system, branch, checks, end.water), ...own] };
}

function goalFinding(system: System, branch: Branch, checks: readonly LimitCheck[], water: Water): Finding {
  if (checks.length === 0) return withoutLimits(`goal-${branch.id}`, branch.name, branch.goal.id, water, branch.litresPerDay, system.units);
  const missed = against(checks);
  const say = words(system.units);
  if (missed.length === 0)
    return {
      id: `goal-${branch.id}`,
      severity: 'good',
      title: `${branch.name}: ${allMet(checks.length)}`,
      why: `${say.perDay(branch.litresPerDay)} of it.`,
    };
  const text = (check: LimitCheck): string => {
    const bound = check.side === 'high' ? check.limit.high! : check.limit.low!;
    const { quantity, label } = check.limit;
    const figures = missText(quantity, check.value, bound, system.units);
    const figure = check.assumed
      ? `, assumed ${assumedText(quantity, check.value, check.assumed.plusMinus, system.units)}`
      : ` ${figures.value}`;
    return `${inSentence(label)}${figure}, ${check.side === 'high' ? 'at most' : 'at least'} ${figures.bound}`;
  };
  return {
    id: `goal-${branch.id}`,
    severity: missed.some((check) => check.side === 'high' && check.verdict === 'missed') ? 'bad' : 'mind',
    title: `${branch.name}: ${text(missed[0]!)}`,
    why:
      missed.length > 1
        ? `Also ${missed.slice(1).map(text).join('; ')}.`
        : `${missed[0]!.assumed ? 'Nobody measured it: measure it first. ' : ''}${missed[0]!.limit.because}.`,
  };
}
