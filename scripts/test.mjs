/** `npm test`: lint, types, unit tests, build, end-to-end tests; one summary; fails if any of them fails. */
import { ensureBuilt, ensureChromium, ensurePackages, run } from './prepare.mjs';

ensurePackages();
ensureChromium();
const npx = (...args) => run('npx', ['--no-install', ...args]);
const STEPS = [
  ['lint', () => npx('eslint', '.')],
  ['types', () => run('npm', ['run', '--silent', 'types'])],
  ['unit tests', () => npx('vitest', 'run')],
  ['build', () => ensureBuilt()],
  ['end-to-end tests', () => npx('playwright', 'test')],
];
const results = [];
for (const [name, step] of STEPS) {
  const started = Date.now();
  console.log(`\n── ${name}`);
  const ok = step() === 0;
  results.push({ name, ok, seconds: Math.round((Date.now() - started) / 1000) });
}
console.log('\n── summary');
for (const { name, ok, seconds } of results) console.log(`${ok ? 'passed' : 'FAILED'}  ${name} (${seconds} s)`);
const failed = results.filter((result) => !result.ok).length;
console.log(`${results.length - failed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
