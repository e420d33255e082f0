/** `npm test`: lint, types, unit tests, build, end-to-end tests; one summary; fails if any of them fails. */
import { spawn } from 'node:child_process';
import { ensureBroker, ensureBuilt, ensureChromium, ensurePackages, run } from './prepare.mjs';

ensurePackages();
ensureChromium();
ensureBroker();

/** Runs a command beside others; what it says is kept together and printed when it ends. */
const beside = (command, ...args) =>
  new Promise((done) => {
    const child = spawn(command, args, { env: { ...process.env, FORCE_COLOR: '0' } });
    const said = [];
    child.stdout.on('data', (data) => said.push(data));
    child.stderr.on('data', (data) => said.push(data));
    child.on('error', (error) => said.push(Buffer.from(String(error))));
    child.on('close', (code) => {
      process.stdout.write(Buffer.concat(said));
      done(code ?? 1);
    });
  });
const npx = (...args) => ['npx', '--no-install', ...args];

// Two lanes side by side, for two cores: what only reads the source, and what runs it. The browser comes last, alone.
const LANES = [
  [
    ['format', () => beside(...npx('prettier', '--check', '--log-level', 'warn', '.'))],
    ['lint', () => beside(...npx('eslint', '.'))],
    ['unused code', () => beside(...npx('knip', '--no-progress'))],
    ['types', () => beside('npm', 'run', '--silent', 'types')],
  ],
  [
    ['unit tests', () => beside(...npx('vitest', 'run'))],
    ['build', async () => ensureBuilt()],
  ],
];
const LAST = [['end-to-end tests', async () => run('npx', ['--no-install', 'playwright', 'test'])]];

const results = [];
async function walk(lane) {
  for (const [name, step] of lane) {
    const started = Date.now();
    const ok = (await step()) === 0;
    console.log(`\n── ${name} ${ok ? 'passed' : 'FAILED'}`);
    results.push({ name, ok, seconds: Math.round((Date.now() - started) / 1000) });
  }
}
await Promise.all(LANES.map(walk));
await walk(LAST);
console.log('\n── summary');
for (const { name, ok, seconds } of results) console.log(`${ok ? 'passed' : 'FAILED'}  ${name} (${seconds} s)`);
const failed = results.filter((result) => !result.ok).length;
console.log(`${results.length - failed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
