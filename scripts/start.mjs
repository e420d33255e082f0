/** `npm start`: installs and builds what is missing, then serves the app with the demonstration offered. */
import { ensureBuilt, ensurePackages, run } from './prepare.mjs';

ensurePackages();
if (ensureBuilt() !== 0) {
  console.error('The app could not be built; see above.');
  process.exit(1);
}
process.exit(run(process.execPath, ['--import', 'tsx', 'server/main.ts']));
