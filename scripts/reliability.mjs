/** `npm run reliability`: installs and builds what is missing, then the slower proofs in a real browser. */
import { ensureBuilt, ensureChromium, ensureHosts, ensurePackages, run } from './prepare.mjs';

ensurePackages();
ensureChromium();
ensureHosts();
if (ensureBuilt() !== 0) {
  console.error('The app could not be built; see above.');
  process.exit(1);
}
process.exit(run('npx', ['--no-install', 'playwright', 'test', '--config', 'e2e/reliability.config.ts', ...process.argv.slice(2)]));
