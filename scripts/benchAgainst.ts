/**
 * `npm run bench:against <commit> [runs]`: the benchmarks of a commit and of this checkout in turn, so that a machine
 * that is slow for a while is slow for both; medians of the runs side by side, written to docs/benchmarks.md.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { median } from './benchKit';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const OWN = ['app', 'core', 'server'];
const [commit, runs = '2'] = process.argv.slice(2);
if (!commit) throw new Error('Say which commit: npm run bench:against <commit> [runs].');

/** A checkout of its own, with the packages of this one. */
function checkout(of: string): string {
  const at = mkdtempSync(join(tmpdir(), 'bench-'));
  execFileSync('git', ['worktree', 'add', '--force', '--detach', at, of], { cwd: ROOT, stdio: 'ignore' });
  mkdirSync(join(at, 'node_modules/@yes-clear'), { recursive: true });
  for (const name of readdirSync(join(ROOT, 'node_modules')))
    if (name !== '@yes-clear') symlinkSync(join(ROOT, 'node_modules', name), join(at, 'node_modules', name));
  for (const name of OWN) symlinkSync(join(at, name), join(at, 'node_modules/@yes-clear', name));
  return at;
}

interface Measured {
  readonly value: number;
  readonly unit: string;
  readonly rest: readonly string[];
}
/** One run of the benchmarks of a checkout, by row. */
function run(at: string): Map<string, Measured> {
  // By node itself: npm would take this checkout for its own.
  const node = (cwd: string, tool: string, ...args: string[]): void =>
    void execFileSync(process.execPath, [join(ROOT, 'node_modules', tool), ...args], { cwd, stdio: ['ignore', 'ignore', 'inherit'] });
  node(join(at, 'app'), 'vite/bin/vite.js', 'build');
  rmSync(join(at, 'docs/benchmarks.md'), { force: true });
  // A row over its limit is said by the command itself, and no reason to lose the rest: no table is one.
  try {
    node(at, 'tsx/dist/cli.mjs', 'scripts/bench.ts');
  } catch (fault) {
    if (!existsSync(join(at, 'docs/benchmarks.md'))) throw fault;
  }
  const rows = readFileSync(join(at, 'docs/benchmarks.md'), 'utf8')
    .split('\n')
    .flatMap((line) => {
      const [, what, figure, ...rest] = line.split('|').map((cell) => cell.trim());
      const parts = figure?.match(/^([\d.]+) (\S+)$/);
      return what && parts ? [[what, { value: Number(parts[1]), unit: parts[2]!, rest: rest.slice(0, 2) }] as const] : [];
    });
  return new Map(rows);
}

const sides = [
  { name: commit, at: checkout(commit), runs: [] as Map<string, Measured>[] },
  { name: 'now', at: checkout('HEAD'), runs: [] as Map<string, Measured>[] },
];
for (let i = 0; i < Number(runs); i++) for (const side of sides) side.runs.push(run(side.at));

const middle = (all: readonly Map<string, Measured>[], what: string): string => {
  const found = all.flatMap((one) => one.get(what) ?? []);
  return found.length === 0 ? '' : `${Number(median(found.map(({ value }) => value)).toPrecision(3))} ${found[0]!.unit}`;
};
const [before, now] = sides as [(typeof sides)[number], (typeof sides)[number]];
const lines = [...now.runs[0]!].map(
  ([what, { rest }]) => `| ${what} | ${middle(now.runs, what)} | ${middle(before.runs, what)} | ${rest[0] ?? ''} | ${rest[1] ?? ''} |`,
);
const head = readFileSync(join(now.at, 'docs/benchmarks.md'), 'utf8').match(/^Medians.*$/m)?.[0] ?? '';
const file = join(ROOT, 'docs/benchmarks.md');
writeFileSync(
  file,
  `# Benchmarks

${head}

Both commits were run ${runs} times in turn by \`npm run bench:against ${commit} ${runs}\`; a row without a figure was not measured then. A figure here is the median of those runs.

| What | Now | ${commit} | Limit | How |
|---|---|---|---|---|
${lines.join('\n')}
`,
);
execFileSync('npx', ['prettier', '--write', file], { cwd: ROOT, stdio: 'ignore' });
for (const { at } of sides) {
  execFileSync('git', ['worktree', 'remove', '--force', at], { cwd: ROOT, stdio: 'ignore' });
  rmSync(at, { recursive: true, force: true });
}
console.log(readFileSync(file, 'utf8'));
