import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Dependencies point one way: web, server and cli → core; inside core never from one kind to another, nor from below to above. */
const only = (message, ...patterns) => ({
  'no-restricted-imports': ['error', { patterns: patterns.map((regex) => ({ regex, message })) }],
});
/** All is typed in one go, so what only a page or only Node has is kept out of the other by name. */
const PAGE = [
  'window',
  'document',
  'localStorage',
  'sessionStorage',
  'indexedDB',
  'fetch',
  'navigator',
  'location',
  'self',
  'requestAnimationFrame',
  'requestIdleCallback',
  'Worker',
  'Image',
];
const NODE = ['process', 'Buffer', 'global', 'require', 'module', '__dirname', '__filename', 'setImmediate'];
const OUTSIDE = ['^(react|react-dom|zustand|comlink|localforage|express|node:)', '^@gristmill/'];

/** Folders of the core from the ground up: each stands on those before it and, by value, on none after it. */
const LAYERS = [
  ...['math', 'loop', 'units', 'figure', 'schema', 'shape', 'shop', 'contact', 'lobed', 'solid'],
  ...[
    'gear',
    'motor',
    'brief',
    'wave',
    'stage',
    'reducer',
    'line',
    'sizing',
    'search',
    'fit',
    'assembly',
    'document',
    'review',
    'bench',
    'schedule',
  ],
];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'playwright-report/**', 'test-results/**'] },
  { linterOptions: { reportUnusedDisableDirectives: 'off' } },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-expressions': ['error', { allowShortCircuit: true, allowTernary: true }],
      eqeqeq: 'error',
      'prefer-const': ['error', { destructuring: 'all' }],
      'no-console': 'error',
      // Prettier breaks what it can; text and tables of data may be longer.
      'max-len': ['error', { code: 160, ignoreStrings: true }],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      ...only('The core computes: no interface, no input or output, no other workspace.', ...OUTSIDE),
      'no-restricted-globals': ['error', ...PAGE, ...NODE],
    },
  },
  {
    files: ['core/src/stage/*/**/*.ts'],
    rules: only(
      'A kind uses what kinds share, never another kind, the registry or the catalogue.',
      ...OUTSIDE,
      '^\\.\\./(?!\\.\\.)[^/]+/',
      'registry',
      'catalogue',
    ),
  },
  {
    files: ['core/src/{reducer,line,brief,sizing,search,document,bench,review,motor}/**/*.ts'],
    rules: only('Kinds are known through the registry alone.', ...OUTSIDE, '/stage/[^/]+/', 'catalogue'),
  },
  ...LAYERS.map((layer, i) => ({
    files: [`core/src/${layer}/**/*.ts`],
    plugins: { '@typescript-eslint': tseslint.plugin },
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: LAYERS.slice(i + 1).map((above) => ({
            regex: `^\\.\\./(\\.\\./)*${above}/`,
            allowTypeImports: true,
            message: `What lies below does not stand on what is above: ${LAYERS.join(', ')}.`,
          })),
        },
      ],
    },
  })),
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      ...only(
        'Views know kinds through the registry, and the core by its name.',
        '^node:',
        '@gristmill/(server|cli)',
        'core/src',
        '/stage/(belt|toy)',
      ),
      'no-restricted-globals': ['error', ...NODE],
    },
  },
  {
    files: ['cli/src/**/*.ts', 'server/src/**/*.ts'],
    rules: {
      ...only('The command line and the server know the core by its name.', '@gristmill/(web|server|cli)', 'core/src'),
      'no-restricted-globals': ['error', ...PAGE.filter((x) => x !== 'fetch')],
    },
  },
  { files: ['scripts/**', 'torture/**', 'server/src/main.ts'], rules: { 'no-console': 'off' } },
  {
    files: ['**/*.{js,mjs}'],
    languageOptions: { globals: { console: 'readonly', process: 'readonly', URL: 'readonly' } },
    rules: { 'no-console': 'off' },
  },
);
