/** `npm start`: installs and builds what is missing, then serves the app with the demonstration offered. */
import { ensureBuilt, ensurePackages, ROOT } from './prepare.mjs';
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';

ensurePackages();
if (ensureBuilt() !== 0) {
  console.error('The app could not be built; see above.');
  process.exit(1);
}
// npm runs this below a shell that does not hand signals on: when that shell goes, so does the server.
const parent = process.ppid;
setInterval(() => {
  if (process.ppid !== parent) process.kill(process.pid, 'SIGTERM');
}, 300).unref();
// In this very process, so that whoever stops it stops the server.
const { register } = await import('tsx/esm/api');
register();
await import(pathToFileURL(join(ROOT, 'server/main.ts')).href);
