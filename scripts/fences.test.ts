import { fileURLToPath } from 'node:url';
import { ESLint } from 'eslint';
import { describe, expect, it } from 'vitest';
import { TYPED_RULES } from '../eslint.config.js';

/** The rooms import downwards only: each forbidden import fails, and what is allowed passes. */
const eslint = new ESLint({
  cwd: fileURLToPath(new URL('..', import.meta.url)),
  // The files that are tried do not exist: they have no types to look at.
  overrideConfig: {
    languageOptions: { parserOptions: { projectService: false, project: null } },
    rules: Object.fromEntries(Object.keys(TYPED_RULES).map((rule) => [rule, 'off' as const])),
  },
});
const RULES = ['boundaries/dependencies', 'no-restricted-imports'];

async function refused(file: string, from: string): Promise<boolean> {
  const code = file.endsWith('.vue')
    ? `<script setup lang="ts">\nimport * as it from '${from}';\nconsole.log(it);\n</script>\n`
    : `import * as it from '${from}';\nexport const seen = it;\n`;
  const [result] = await eslint.lintText(code, { filePath: file });
  return result!.messages.some(({ ruleId }) => ruleId !== null && RULES.includes(ruleId));
}

describe('the fences of the house', { timeout: 120_000 }, () => {
  it.each([
    ['core/numeric/x.ts', '../water', 'the ground floor knows nothing of water'],
    ['core/water/x.ts', '../train', 'water knows no train'],
    ['core/water/x.ts', '../file/schema', 'nor what a file holds'],
    ['core/membrane/x.ts', '../exchange', 'rooms of one floor know nothing of each other'],
    ['core/train/x.ts', '../commission', 'the train knows no runbook'],
    ['core/log/x.ts', '../commission', 'the log knows no runbook'],
    ['core/stage/x.ts', '../file', 'a kind of stage knows no system'],
    ['core/train/x.ts', '../advice', 'the network has no opinion'],
    ['core/template/x.ts', '../train', 'a template solves nothing'],
    ['core/train/x.ts', 'vue', 'the core has no interface'],
    ['core/train/x.ts', 'dexie', 'nor a database'],
    ['core/train/x.ts', 'node:fs', 'nor a machine of its own'],
    ['core/train/x.ts', '@yes-clear/core/log', 'nor a way round by its own name'],
    ['app/src/train/x.ts', '../water/useSample', 'pages never import each other'],
    ['app/src/water/X.vue', '../train/TrainPage.vue', 'pages never import each other'],
    ['app/src/log/x.ts', '../shell/router', 'pages never import the shell'],
    ['app/src/kit/x.ts', '../rounds/useRounds', 'what pages share knows no page'],
    ['app/src/store/x.ts', '../system/openSystem', 'the store knows no open system'],
    ['app/src/worker/x.ts', '../kit/useNotice', 'the worker has no screen'],
    ['app/src/descent/x.ts', '../store/database', 'the picture keeps nothing'],
    ['app/src/store/x.ts', '../../../server/app', 'the app knows no server'],
  ])('%s may not import %s: %s', async (file, from) => expect(await refused(file, from)).toBe(true));
  it.each([
    ['core/train/x.ts', '../membrane'],
    ['core/log/x.ts', '../train'],
    ['core/file/x.ts', 'zod'],
    ['app/src/train/x.ts', '../kit/useNotice'],
    ['app/src/train/X.vue', '../system/openSystem'],
    ['app/src/rounds/x.ts', '@yes-clear/core/log'],
    ['app/src/shell/x.ts', '../kit/useKeys'],
    ['app/src/store/x.ts', 'dexie'],
  ])('%s may import %s', async (file, from) => expect(await refused(file, from)).toBe(false));
});
