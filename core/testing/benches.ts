import { benchSteps, type Bench, type BenchSystemId } from '../fault/bench/systems';
import { runToEnd } from '../numeric';

const MADE = new Map<string, Bench>();

/** A rig of the practice bench with what every cause would show of it; made once for all tests of a file. */
export function benchOf(id: BenchSystemId, baseline = true): Bench {
  const key = `${id} ${baseline}`;
  const known = MADE.get(key);
  if (known) return known;
  const made = runToEnd(benchSteps(id, baseline));
  if (!made.ok) throw new Error(made.error.message);
  MADE.set(key, made.value);
  return made.value;
}
