/**
 * How truly the search for faults tells hidden causes: seeded cases of the two reference systems, each solved in full,
 * searched with three of the best checks. Run with `npm run calibration`; fails where a figure leaves what it must keep.
 * FAULT_CASES sets how many of each (2,000).
 */
import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { REFERENCE_CHECKS, referenceTable } from '../core/testing/referenceFaults';
import { referenceRig } from '../core/testing/referenceRig';
import { faultTally, joined, type FaultTally } from '../core/testing/seededFaults';

const CASES = Number(process.env['FAULT_CASES'] ?? 2000);
/** Cases from which the figures must be kept as they stand; fewer are given twice their own scatter. */
const FULL = 2000;
const scatter = (share: number): number => (CASES >= FULL ? 0 : 2 * Math.sqrt((share * (1 - share)) / CASES));
/** Processes side by side. */
const PARTS = 2;
const run = promisify(execFile);

/** Cases of one process: a share of the seeds. */
function part(elements: 1 | 2, index: number): FaultTally {
  const seeds = Array.from({ length: CASES }, (_, i) => 7919 * (i + 1)).filter((_, i) => i % PARTS === index);
  return faultTally(referenceRig(elements), referenceTable(elements), REFERENCE_CHECKS, seeds);
}
async function tallyOf(elements: 1 | 2): Promise<FaultTally> {
  const parts = await Promise.all(
    Array.from({ length: PARTS }, async (_, index) => {
      const { stdout } = await run('npx', ['tsx', fileURLToPath(import.meta.url), String(elements), String(index)], { maxBuffer: 1e7 });
      return JSON.parse(stdout.slice(stdout.indexOf('{'))) as FaultTally;
    }),
  );
  return parts.reduce(joined);
}

interface Figure {
  readonly says: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
}
/** Stated probability against what was true: bins with so many pairs must agree so far. */
const LEAST_PAIRS = 400;
const AGREES_WITHIN = 0.05;

function figuresOf(name: string, tally: FaultTally, leastFirst: number): Figure[] {
  const share = (count: number): number => count / tally.cases;
  const last = tally.first.length - 1;
  const bins = tally.bins.flatMap(({ stated, count, true: held }, when) =>
    count.flatMap((pairs, i) =>
      pairs < LEAST_PAIRS
        ? []
        : [
            {
              says: `${name}, ${when === 0 ? 'first look' : 'after three checks'}: stated ${(stated[i]! / pairs).toFixed(3)}, true of ${pairs}`,
              value: held[i]! / pairs,
              low: stated[i]! / pairs - AGREES_WITHIN,
              high: stated[i]! / pairs + AGREES_WITHIN,
            },
          ],
    ),
  );
  return [
    { says: `${name}: true cause first at first look`, value: share(tally.first[0]!), low: 0.62 - scatter(0.62), high: 1 },
    { says: `${name}: among the first three at first look`, value: share(tally.three[0]!), low: 0.85 - scatter(0.85), high: 1 },
    { says: `${name}: first after three checks`, value: share(tally.first[last]!), low: leastFirst - scatter(leastFirst), high: 1 },
    { says: `${name}: among the first three after three checks`, value: share(tally.three[last]!), low: 0.95 - scatter(0.95), high: 1 },
    ...bins,
  ];
}

const [elements, index] = process.argv.slice(2).map(Number);
if (elements !== undefined && index !== undefined) console.log(JSON.stringify(part(elements === 1 ? 1 : 2, index)));
else {
  const figures: Figure[] = [];
  for (const [name, count, leastFirst] of [
    ['one membrane', 1, 0.85],
    ['two membranes', 2, 0.84],
  ] as const) {
    const tally = await tallyOf(count);
    const per = (sums: readonly number[]): string => sums.map((sum) => (sum / tally.cases).toFixed(3)).join(', ');
    console.log(
      `${name}, ${tally.cases} cases: first ${per(tally.first)}; of three ${per(tally.three)}; bits left ${per(tally.bits)}; ${(tally.minutes / tally.cases).toFixed(1)} min of checks`,
    );
    figures.push(...figuresOf(name, tally, leastFirst));
  }
  for (const { says, value, low, high } of figures)
    console.log(
      `${value >= low && value <= high ? 'kept  ' : 'FAILED'}  ${value.toFixed(3)}  ${says}, ${low.toFixed(2)} to ${high.toFixed(2)}`,
    );
  if (figures.some(({ value, low, high }) => !(value >= low && value <= high))) process.exit(1);
}
