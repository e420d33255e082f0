/** What both `npm start` and `npm test` need first, with nothing but Node and npm at hand. */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, readdirSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const MARK = join(ROOT, 'node_modules', '.yes-clear-lock');

/** Runs a command in the project, its output shown; returns its exit code. */
export function run(command, args, env = {}) {
  const result = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
  return result.status ?? 1;
}

const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');

/** Installs packages unless they are those of the lock file already. */
export function ensurePackages() {
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === lockHash()) return;
  console.log('Installing packages …');
  const quietly = ['--no-fund', '--no-audit', '--loglevel=error'];
  // Just what the lock file names; where a registry does not carry all of it, as near to it as can be had.
  if (run('npm', ['ci', ...quietly]) !== 0 && run('npm', ['install', ...quietly]) !== 0) {
    console.error('The packages could not be installed: npm install failed. The npm registry is needed this once.');
    process.exit(1);
  }
  writeFileSync(MARK, lockHash());
}

/** Newest change among the sources of the app, ms. */
function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return readdirSync(path)
    .filter((name) => name !== 'node_modules' && name !== 'dist')
    .reduce((latest, name) => Math.max(latest, newest(join(path, name))), 0);
}

/** Builds the app unless what stands there is newer than every source. */
export function ensureBuilt() {
  const built = join(ROOT, 'app', 'dist', 'index.html');
  const sources = Math.max(...['app', 'core', 'demo', 'package-lock.json'].map((name) => newest(join(ROOT, name))));
  if (existsSync(built) && statSync(built).mtimeMs > sources) return 0;
  console.log('Building the app …');
  return run('npm', ['run', '--silent', 'build']);
}

const inPath = (name) => (process.env.PATH ?? '').split(':').some((folder) => existsSync(join(folder, name)));

/** Installs Debian packages, which takes root; says what to do where it cannot. */
function installDebian(packages, why) {
  const by = `apt-get install ${packages.join(' ')}`;
  if (process.getuid?.() !== 0) {
    console.error(`${why} Install it (Debian: ${by}).`);
    process.exit(1);
  }
  console.log(`${why} Installing Debian’s …`);
  try {
    execFileSync('apt-get', ['update', '-q'], { stdio: 'ignore' });
    execFileSync('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...packages], {
      stdio: 'ignore',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  } catch {
    console.error(`It could not be installed from Debian’s packages (${by} failed).`);
    process.exit(1);
  }
}

/** Debian's Chromium, the one without a window first: the same pages take it two thirds of the work. */
export const CHROMIUMS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** Finds a Chromium, or installs Debian's; one of one's own can be named with CHROMIUM. */
export function ensureChromium() {
  const found = [process.env.CHROMIUM, ...CHROMIUMS].find((path) => path && existsSync(path));
  if (!found) installDebian(['chromium-headless-shell'], 'No Chromium found.');
}

/** The broker the tests of meters speak to. */
export function ensureBroker() {
  if (!inPath('mosquitto') && !existsSync('/usr/sbin/mosquitto')) installDebian(['mosquitto'], 'mosquitto not found.');
}

/** What the proofs of hosting need beside it: a static host, and the tool that fills a browser's list of trusted roots. */
export function ensureHosts() {
  const missing = [
    ['nginx', 'nginx-light'],
    ['certutil', 'libnss3-tools'],
  ].filter(([command]) => !inPath(command) && !existsSync(`/usr/sbin/${command}`));
  if (missing.length > 0)
    installDebian(
      missing.map(([, name]) => name),
      `${missing.map(([command]) => command).join(' and ')} not found.`,
    );
}
