// The house rules: which room may import which, and what the core may not call.
import { createConfigForNuxt } from '@nuxt/eslint-config/flat'
import floors from './scripts/floors.mjs'

/** A room's rule: the rooms it may not reach into. */
const closed = (files, rooms, why) => ({
  files,
  // Tests look at the demo.
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ regex: `^(~~/|~/|@/|@@/|(\\.\\./)+)(${rooms.join('|')})(/|$)`, message: why }] },
    ],
  },
})

/** The same for a room of the app. `apart` lists the files that are exempt. */
const closedInApp = (files, rooms, why, apart = []) => ({
  files,
  ignores: ['**/*.test.ts', ...apart],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { regex: `^(~/|(\\.\\./)+)(${rooms.join('|')})(/|$)`, message: why },
          { regex: '^(~~/|(\\.\\./)+)(server|cli|demo|tests)(/|$)', message: 'The app imports the core alone.' },
        ],
      },
    ],
  },
})

/** Rules that need types. Components are left out: each of them makes a new program, which takes a minute more. */
const typed = (files, project) => ({
  files: [files],
  ignores: ['**/*.test.ts'],
  languageOptions: { parserOptions: { project, extraFileExtensions: ['.vue'] } },
  rules: {
    '@typescript-eslint/no-floating-promises': 'error',
    '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
  },
})

export default createConfigForNuxt({ features: { standalone: true, stylistic: false } }).append(
  {
    ignores: [
      'core/formula/formula.parser.ts',
      'core/formula/formula.parser.terms.ts',
      '.tide/**',
      '.data/**',
      'test-results/**',
    ],
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'vue/html-self-closing': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'vue/no-multiple-template-root': 'off',
      'vue/attributes-order': 'off',
      'vue/first-attribute-linebreak': 'off',
      // A number a hundred times checked for its place in an array needs no other check.
      '@typescript-eslint/no-non-null-assertion': 'off',
      eqeqeq: ['error', 'always'],
    },
  },
  ...[
    ['core/**/*.ts', './core/tsconfig.json'],
    ['app/**/*.ts', './.nuxt/tsconfig.app.json'],
    ['server/**/*.ts', './.nuxt/tsconfig.server.json'],
    ['cli/**/*.ts', './cli/tsconfig.json'],
  ].map(([files, project]) => typed(files, project)),
  {
    files: ['core/**/*.ts'],
    plugins: { floors },
    rules: { 'floors/circle': 'error' },
  },
  {
    files: ['core/**/*.ts'],
    // Tests look at what stands above them.
    ignores: ['**/*.test.ts'],
    rules: { 'floors/up': 'error' },
  },
  closed(['core/**/*.ts'], ['app', 'server', 'cli', 'demo', 'tests'], 'The core imports none of the other rooms.'),
  closed(
    ['app/**/*.{ts,vue}'],
    ['server', 'cli', 'demo', 'tests'],
    'The app talks to the server by its API and imports the core alone.',
  ),
  // Within the app: services know no piece, stores hold what is shown, commands change it, components call them.
  closedInApp(
    ['app/services/*.ts'],
    ['stores', 'commands', 'components', 'pages', 'composables', 'editor', 'stage'],
    'A service knows neither stores nor the page: hand it in.',
  ),
  closedInApp(
    ['app/stores/*.ts'],
    ['components', 'pages', 'commands', 'editor'],
    'A store holds what is shown; what changes it is a command.',
    // What a device sends and what comes back from a hand-over act by commands.
    ['app/stores/device.ts', 'app/stores/handing-over.ts'],
  ),
  closedInApp(
    [
      'app/commands/*.ts',
      'app/player/*.ts',
      'app/stage/**/*.ts',
      'app/editor/*.ts',
      'app/export/*.ts',
      'app/work/*.ts',
    ],
    ['components', 'pages'],
    'Components stand above all other rooms of the app.',
  ),
  closed(['cli/**/*.ts'], ['app', 'server', 'demo', 'scripts', 'tests'], 'The prompt imports the core alone.'),
  closed(['server/**/*.ts'], ['app', 'cli', 'demo', 'tests'], 'The server imports the core alone.'),
  closed(['demo/**/*.ts'], ['app', 'server', 'cli', 'tests'], 'The demo is written with the core alone.'),
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        ...[
          'sin',
          'cos',
          'tan',
          'asin',
          'acos',
          'atan',
          'atan2',
          'sinh',
          'cosh',
          'tanh',
          'exp',
          'expm1',
          'log',
          'log2',
          'log10',
          'log1p',
          'pow',
          'hypot',
          'cbrt',
        ].map(property => ({
          object: 'Math',
          property,
          message: 'Not the same bits on every machine: use core/signal/maths.ts or a polynomial.',
        })),
        { object: 'Math', property: 'random', message: 'The core is pure: hash a seed instead.' },
        { object: 'Date', property: 'now', message: 'The core has no clock.' },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "BinaryExpression[operator='**'], AssignmentExpression[operator='**=']",
          message: 'Use multiplication, or core/signal/maths.ts.',
        },
        {
          selector: "NewExpression[callee.name='Function'], CallExpression[callee.name='eval']",
          message: 'Formulas never become code.',
        },
      ],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'performance',
        'fetch',
        'setTimeout',
        'setInterval',
      ],
    },
  },
  {
    files: ['**/*.test.ts', 'tests/**/*.ts'],
    rules: { '@typescript-eslint/no-invalid-void-type': 'off', 'no-empty-pattern': 'off' },
  },
)
