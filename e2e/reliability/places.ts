import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The checkout, and the built app in it. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url));
export const DIST = join(ROOT, 'app/dist');
