import js from '@eslint/js';
import vue from 'eslint-plugin-vue';
import ts from 'typescript-eslint';

/**
 * Rooms of the core from the ground up. A room may import only from rooms further down this list, so the
 * drawing in the README stays true. `testing` serves tests alone.
 */
const CORE_ROOMS = [
  ['numeric'],
  ['quantity'],
  ['water'],
  ['file'],
  ['goal', 'membrane', 'exchange', 'report'],
  ['pretreatment', 'storage'],
  ['train'],
  ['commission', 'log'],
];
const APP_PAGES = ['rounds', 'water', 'goal', 'train', 'commission', 'log'];

/** Forbids the given import patterns to the given files. */
const forbid = (files, group, message) => ({
  files,
  ignores: ['**/*.test.ts'],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
});

const coreRules = CORE_ROOMS.flatMap((level, height) =>
  level.map((room) => {
    const others = CORE_ROOMS.slice(height)
      .flat()
      .filter((name) => name !== room);
    return forbid(
      [`core/${room}/**/*.ts`],
      [...others.flatMap((name) => [`../${name}`, `../${name}/*`]), '../../*', 'vue', 'dexie', 'node:*', '@yes-clear/*'],
      `core/${room} may import only from rooms below it: ${CORE_ROOMS.slice(0, height).flat().join(', ') || 'none'}.`,
    );
  }),
);

const pageRules = APP_PAGES.map((page) =>
  forbid(
    [`app/src/${page}/**/*.{ts,vue}`],
    APP_PAGES.filter((name) => name !== page).flatMap((name) => [`../${name}`, `../${name}/*`]),
    'Pages never import each other; what two pages need belongs to kit, descent or store.',
  ),
);

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
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_' }],
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
    languageOptions: { globals: { process: 'readonly', console: 'readonly', URL: 'readonly', Buffer: 'readonly', setInterval: 'readonly' } },
  },
  ...coreRules,
  ...pageRules,
  forbid(['app/**/*.{ts,vue}'], ['**/server/*', '@yes-clear/server*'], 'The app imports the core, never the server.'),
);
