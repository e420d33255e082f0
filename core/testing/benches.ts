import { hypothesesOf } from '../fault/catalogue/fault';
import { benchGround, type Bench, type BenchSystemId } from '../fault/bench/systems';
import { buildNodes } from '../fault/nodes';

const MADE = new Map<string, Bench>();

/** A rig of the practice bench with what every cause would show of it; made once for all tests of a file. */
export function benchOf(id: BenchSystemId, baseline = true): Bench {
  const key = `${id} ${baseline}`;
  const known = MADE.get(key);
  if (known) return known;
  const found = benchGround(id, baseline);
  if (!found.ok) throw new Error(found.error.message);
  const { system, ground } = found.value;
  const table = buildNodes(ground.rig, hypothesesOf(ground.faults, ground.rig), ground.shared);
  if (!table.ok) throw new Error(table.error.message);
  const bench = { id, system, ground, table: table.value };
  MADE.set(key, bench);
  return bench;
}
