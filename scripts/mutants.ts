import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

/**
 * `npm run mutants [how many] [seed]`: spoils one place of the source at a time, a sign, a figure, a condition, a word,
 * and sees whether a test fails. What survives is a place no test guards. Works on copies; the checkout is not touched.
 */
const ROOT = fileURLToPath(new URL('..', import.meta.url));
/** Rooms whose sentences and tables are guarded, and the tests that guard them. */
const ROOMS = ['advice', 'stage', 'log', 'commission'];
const GUARDS = ['core/{testing,advice,stage,log,commission,template}/**/*.test.ts', 'core/train/{laws,wear}.test.ts'];
const LEAST_SHARE = 0.85;
/** Ends a run that a spoiled condition made endless, ms. */
const PATIENCE_MS = 90_000;

interface Mutant {
  readonly file: string;
  readonly start: number;
  readonly end: number;
  readonly text: string;
  readonly was: string;
}

const OPPOSITE: Readonly<Record<string, string>> = {
  '<': '>=',
  '>': '<=',
  '<=': '>',
  '>=': '<',
  '===': '!==',
  '!==': '===',
  '&&': '||',
  '||': '&&',
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
};
/** Words that turn a sentence into its contrary. */
const CONTRARY: readonly (readonly [RegExp, string])[] = [
  [/\bbelow\b/i, 'above'],
  [/\babove\b/i, 'below'],
  [/\bat most\b/, 'at least'],
  [/\bat least\b/, 'at most'],
  [/\bbefore\b/i, 'behind'],
  [/\bbehind\b/i, 'before'],
  [/\bmore\b/i, 'less'],
  [/\blower\b/i, 'higher'],
  [/\bhigher\b/i, 'lower'],
  [/\bnever\b/i, 'always'],
  [/\bnot\b/, 'surely'],
];

function mutantsOf(file: string): Mutant[] {
  const text = readFileSync(join(ROOT, file), 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.ES2023, true);
  const found: Mutant[] = [];
  const put = (node: ts.Node, by: string): void => {
    found.push({ file, start: node.getStart(source), end: node.getEnd(), text: by, was: node.getText(source) });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    // A tolerance of the arithmetic is no figure that a person is told or asked.
    if (ts.isNumericLiteral(node) && Number(node.text) > 0 && Number(node.text) < 1e-4) return;
    if (ts.isNumericLiteral(node)) put(node, Number(node.text.replaceAll('_', '')) === 0 ? '1' : `(${node.getText(source)} * 1.25)`);
    else if (ts.isBinaryExpression(node)) {
      const by = OPPOSITE[node.operatorToken.getText(source)];
      // A text put together with + has no contrary.
      if (by && !(ts.isStringLiteralLike(node.left) || ts.isStringLiteralLike(node.right))) put(node.operatorToken, by);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put(node, node.operand.getText(source));
    else if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true');
    else if (
      ts.isStringLiteral(node) ||
      ts.isNoSubstitutionTemplateLiteral(node) ||
      ts.isTemplateHead(node) ||
      ts.isTemplateMiddle(node) ||
      ts.isTemplateTail(node)
    ) {
      const own = node.getText(source);
      const turn = CONTRARY.find(([word]) => word.test(own) && own.includes(' '));
      if (turn) put(node, own.replace(turn[0], turn[1]));
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** A seeded shuffle: the same seed, the same mutants. */
function shuffled<T>(list: readonly T[], seed: number): T[] {
  const next = [...list];
  let state = seed >>> 0;
  const random = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  for (let i = next.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [next[i], next[k]] = [next[k]!, next[i]!];
  }
  return next;
}

function copy(): string {
  const at = mkdtempSync(join(tmpdir(), 'mutants-'));
  for (const name of ['core', 'demo', 'package.json', 'tsconfig.base.json'])
    cpSync(join(ROOT, name), join(at, name), { recursive: true, filter: (path) => !path.includes('node_modules') });
  symlinkSync(join(ROOT, 'node_modules'), join(at, 'node_modules'));
  writeFileSync(
    join(at, 'vitest.config.ts'),
    `export default { test: { include: ${JSON.stringify(GUARDS)}, setupFiles: ['core/testing/seed.ts'], pool: 'threads', isolate: false, maxWorkers: 1, fileParallelism: false } };`,
  );
  return at;
}

/** Whether the guards fail in a copy as it stands. */
const fails = (at: string): Promise<boolean> =>
  new Promise((done) => {
    const run = spawn(process.execPath, [join(ROOT, 'node_modules/vitest/vitest.mjs'), 'run', '--bail', '1', '--root', at], {
      stdio: 'ignore',
      cwd: at,
    });
    const clock = setTimeout(() => run.kill('SIGKILL'), PATIENCE_MS);
    run.on('close', (code) => {
      clearTimeout(clock);
      done(code !== 0);
    });
  });

const files = ROOMS.flatMap((room) =>
  readdirSync(join(ROOT, 'core', room), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.endsWith('index.ts'))
    .map((name) => relative(ROOT, join(ROOT, 'core', room, name))),
);
const all = files.flatMap(mutantsOf);
const count = Math.min(Number(process.argv[2] ?? 60), all.length);
const seed = Number(process.argv[3] ?? 1);
const chosen = shuffled(all, seed).slice(0, count);

const survivors: Mutant[] = [];
const queue = [...chosen];
let done = 0;
async function work(): Promise<void> {
  const at = copy();
  if (await fails(at)) throw new Error('The tests fail before anything is spoiled.');
  for (let mutant = queue.pop(); mutant; mutant = queue.pop()) {
    const path = join(at, mutant.file);
    const text = readFileSync(path, 'utf8');
    writeFileSync(path, text.slice(0, mutant.start) + mutant.text + text.slice(mutant.end));
    const killed = await fails(at);
    writeFileSync(path, text);
    if (!killed) survivors.push(mutant);
    done += 1;
    const line = text.slice(0, mutant.start).split('\n').length;
    console.log(
      `${done}/${count} ${killed ? 'killed  ' : 'SURVIVED'} ${mutant.file}:${line} ${mutant.was.slice(0, 60)} → ${mutant.text.slice(0, 60)}`,
    );
  }
  rmSync(at, { recursive: true, force: true });
}
await Promise.all(Array.from({ length: Math.min(2, availableParallelism()) }, work));
const share = (count - survivors.length) / count;
console.log(
  `\n${count - survivors.length} of ${count} mutants killed (seed ${seed}, ${all.length} places in all): ${Math.round(100 * share)} %, at least ${100 * LEAST_SHARE} % are asked for.`,
);
process.exit(share >= LEAST_SHARE ? 0 : 1);
