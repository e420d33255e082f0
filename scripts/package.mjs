/** `npm run package`: the app as a folder any static host can serve, with an example of a host's configuration beside it. */
import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, ensurePackages, ROOT } from './prepare.mjs';

ensurePackages();
if (ensureBuilt() !== 0) {
  console.error('The app could not be built; see above.');
  process.exit(1);
}
const target = join(ROOT, 'package');
rmSync(target, { recursive: true, force: true });
mkdirSync(target, { recursive: true });
cpSync(join(ROOT, 'app/dist'), join(target, 'yes-clear'), { recursive: true });
// The same headers as our own server, from the same place.
const { register } = await import('tsx/esm/api');
register();
const { nginxExample } = await import('../server/nginx.ts');
writeFileSync(join(target, 'nginx.conf'), nginxExample());
writeFileSync(join(target, 'README.md'), readFileSync(join(ROOT, 'docs/hosting.md'), 'utf8'));
console.log('The app stands in package/yes-clear; package/nginx.conf shows how a host serves it by https.');
