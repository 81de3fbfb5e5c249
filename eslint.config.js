import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Who may import whom (design: architecture). Within the core the order tells the story: later folders stand on earlier ones. */
const forbid = (...names) => ({
  'no-restricted-imports': [
    'error',
    { patterns: names.map((n) => ({ regex: n, message: 'The layers do not allow this import.' })) }
  ]
});
const OUTSIDE = String.raw`(^|/)(board|src|cli|demo|e2e)/|^\$lib|^\$app|^svelte|^node:|blockly|comlink`;
/** @param folders of the core, or some of the files in one: `yard/(?!mat)` is all but those that begin with mat */
const within = (...folders) => folders.map((f) => String.raw`(^|/)\.\./(\.\./)?${f.includes('/') ? f : `${f}/`}`);

export default ts.config(
  {
    ignores: ['build/', '.cli/', '.stryker-tmp/', '.svelte-kit/', 'node_modules/', 'test-results/', 'data/', 'static/']
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-empty-pattern': 'off'
    }
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: { projectService: false, extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig }
    },
    rules: {
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/no-at-html-tags': 'off',
      'svelte/prefer-svelte-reactivity': 'off',
      'svelte/prefer-writable-derived': 'off'
    }
  },
  {
    // controls come from the component library, in the looks that src/lib/ui gives them; what is drawn (SVG, canvas, the editor's own fields) does not
    files: ['src/**/*.svelte'],
    rules: {
      'svelte/no-restricted-html-elements': [
        'error',
        {
          elements: ['button', 'select', 'input', 'textarea', 'dialog', 'table', 'progress'],
          message: 'Controls come from src/lib/ui.'
        }
      ]
    }
  },
  { files: ['src/**/*.{svelte,ts}'], rules: { 'no-alert': 'error' } },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...forbid(OUTSIDE),
      'no-restricted-syntax': [
        'error',
        { selector: "BinaryExpression[operator='**']", message: 'Engines differ in **; multiply, or use Math.pow.' },
        {
          selector:
            "CallExpression[callee.object.name='Math'][callee.property.name=/^(hypot|cbrt|expm1|log1p|log2|log10|sinh|cosh|tanh)$/]",
          message: 'Engines differ in this function.'
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Use a seeded stream.'
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Wall time never enters the core.'
        }
      ]
    }
  },
  {
    files: ['core/language/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: forbid(OUTSIDE, ...within('yard/(?!mat)', 'run', 'trace', 'link'))
  },
  {
    files: ['core/kit/**/*.ts', 'core/reckon/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: forbid(OUTSIDE, ...within('language', 'yard', 'run', 'trace', 'link'))
  },
  {
    files: ['core/yard/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: forbid(OUTSIDE, ...within('language', 'run', 'trace', 'link'))
  },
  {
    files: ['core/trace/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: forbid(OUTSIDE, ...within('run', 'yard', 'link'))
  },
  { files: ['board/**/*.ts'], ignores: ['**/*.test.ts'], rules: forbid(String.raw`(^|/)(src|cli|demo|e2e)/`) },
  {
    files: ['src/lib/**/*.{ts,svelte}'],
    ignores: ['src/lib/server/**', '**/*.test.ts'],
    rules: forbid(
      String.raw`core/run/(?!ghost|stops|snapshot|channels)`,
      String.raw`board/standin/(?!arrived|cable|memory|drive|demo)`,
      String.raw`(^|/|\$lib/)server/`
    )
  },
  { files: ['src/lib/server/**/*.ts'], ignores: ['**/*.test.ts'], rules: forbid(String.raw`\.svelte`) }
);
