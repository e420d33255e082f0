import js from '@eslint/js';
import boundaries from 'eslint-plugin-boundaries';
import vue from 'eslint-plugin-vue';
import ts from 'typescript-eslint';

/**
 * The house from the ground up: a room may import from rooms further down, and from none beside it. Rooms that share a
 * line know nothing of each other. `docs/architecture.md` draws it; `scripts/fences.test.ts` proves that it holds.
 */
const CORE = [
  ['numeric'],
  ['quantity'],
  ['water'],
  ['goal', 'membrane', 'exchange', 'report'],
  ['pretreatment', 'storage', 'gas', 'dosing'],
  ['stage'],
  ['file'],
  ['template', 'train', 'recording'],
  ['life'],
  ['ledger'],
  ['advice'],
  ['commission', 'log'],
  ['fault', 'year'],
  ['choice'],
].map((floor) => floor.map((room) => `core/${room}`));
const APP = [
  ['descent', 'time'],
  ['store'],
  ['worker'],
  ['system'],
  ['kit'],
  ['year'],
  ['rounds', 'water', 'goal', 'train', 'commission', 'log', 'faults', 'practice', 'choice'],
  ['shell'],
].map((floor) => floor.map((room) => `app/src/${room}`));
const HOUSE = [...CORE, ...APP];

const elements = [
  ...HOUSE.flat().map((room) => ({ type: room, pattern: room })),
  { type: 'core/testing', pattern: 'core/testing' },
  { type: 'server', pattern: 'server' },
];
/** What each room may import from: itself, and every floor below. */
const policies = HOUSE.flatMap((floor, height) =>
  floor.map((room) => ({
    from: { element: { type: room } },
    allow: { to: { element: { types: { anyOf: [room, ...HOUSE.slice(0, height).flat()] } } } },
  })),
);
/** The core is for any machine: no interface, no Node, nothing of the other workspaces. */
const CORE_PACKAGES = ['zod', 'papaparse', 'fflate'];

/** What needs the types of the whole workspace. */
export const TYPED_RULES = {
  '@typescript-eslint/no-floating-promises': 'error',
  '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
  '@typescript-eslint/await-thenable': 'error',
  '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
  '@typescript-eslint/no-unnecessary-type-assertion': 'error',
  '@typescript-eslint/restrict-plus-operands': 'error',
  '@typescript-eslint/no-base-to-string': 'error',
  '@typescript-eslint/only-throw-error': 'error',
  '@typescript-eslint/prefer-promise-reject-errors': 'error',
  '@typescript-eslint/return-await': 'error',
};

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.ts', '**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      // Array bounds are proven by the loop; the compiler option makes every index optional.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      'no-undef': 'off',
      // A key taken out of an object by destructuring is named with an underscore.
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-indent': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      // The compiler proves it, and knows an exhaustive switch when it sees one.
      'vue/return-in-computed-property': 'off',
    },
  },
  // What only the types tell: a promise nobody waits for, a switch that forgot a case, an assertion that says nothing.
  ...[
    { files: ['core/**/*.ts', 'app/src/**/*.ts'], parserOptions: { projectService: true } },
    { files: ['server/**/*.ts'], parserOptions: { project: ['tsconfig.node.json'] } },
  ].map(({ files, parserOptions }) => ({
    files,
    ignores: ['**/*.test.ts', 'core/testing/**'],
    languageOptions: { parserOptions: { ...parserOptions, tsconfigRootDir: import.meta.dirname } },
    rules: TYPED_RULES,
  })),
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      '@typescript-eslint/explicit-function-return-type': ['error', { allowExpressions: true }],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core is deterministic: pass a seed.' },
        { object: 'Date', property: 'now', message: 'The core has no clock: pass the time.' },
      ],
    },
  },
  {
    files: ['scripts/**/*.mjs', 'eslint.config.js', '**/*.config.ts'],
    languageOptions: {
      globals: { process: 'readonly', console: 'readonly', URL: 'readonly', Buffer: 'readonly', setInterval: 'readonly' },
    },
  },
  {
    files: ['core/**/*.ts', 'app/src/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts', 'core/testing/**'],
    plugins: { boundaries },
    settings: {
      'boundaries/elements': elements,
      'import/resolver': { typescript: { project: ['core/tsconfig.json', 'app/tsconfig.json'], noWarnOnMultipleProjects: true } },
    },
    rules: { 'boundaries/dependencies': ['error', { default: 'disallow', checkAllOrigins: false, policies }] },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts', 'core/testing/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(?!\\.|(${CORE_PACKAGES.join('|')})$)`,
              message: `The core imports only itself and ${CORE_PACKAGES.join(', ')}.`,
            },
          ],
        },
      ],
    },
  },
);
