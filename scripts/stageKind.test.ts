import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

/** A kind of stage stands in one place: what a new one touches is counted on the youngest of them. */
const ROOT = fileURLToPath(new URL('..', import.meta.url));

function sources(folder: string): string[] {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    if (['node_modules', 'dist'].includes(entry.name)) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? sources(path) : /\.(ts|vue|mjs|css)$/.test(entry.name) ? [path] : [];
  });
}
/** What tries the finished application by clicks names what it clicks. */
const ALL = ['core', 'app/src', 'server', 'scripts'].flatMap(sources);
const naming = (word: RegExp): string[] =>
  ALL.filter(
    (path) =>
      (word.test(path) || word.test(readFileSync(join(ROOT, path), 'utf8'))) && path !== relative(ROOT, fileURLToPath(import.meta.url)),
  ).sort();

describe('a kind of stage', () => {
  it('is added by four files: its own, the list, its drawing, its test', () => {
    // The youngest of them; its law stands in a room of its own, under a name of its own.
    expect(naming(/\btwoBed\b/)).toEqual([
      'app/src/descent/vessels/twoBed.vue',
      'core/stage/index.ts',
      'core/stage/twoBed.test.ts',
      'core/stage/twoBed.ts',
    ]);
  });
  it.each([
    'softener',
    'inhibitor',
    'calcite',
    'uv',
    'sediment',
    'tubing',
    'finalFilter',
    'degasser',
    'electrodeionizer',
    'twoBed',
    'dosingPump',
  ])('%s: no room asks whether a stage is one', (kind) => {
    const asking = naming(new RegExp(`(kind === '${kind}'|case '${kind}':|kind: z\\.literal\\('${kind}'\\))`));
    // The order of filters is advice about two kinds: sediment before carbon; blending asks for the softener it goes past.
    const allowed = ['core/advice/orderFindings.ts', 'core/advice/findings.ts', 'core/file/versions/version3.ts', `core/stage/${kind}.ts`];
    expect(asking.filter((path) => !allowed.includes(path) && !path.endsWith('.test.ts') && !path.includes('scripts/make-demo'))).toEqual(
      [],
    );
  });
});
