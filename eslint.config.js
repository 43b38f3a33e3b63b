const expo = require('eslint-config-expo/flat');

/** Rooms from the street to the cellar: an import may only point to the right. */
const ROOMS = [['app'], ['src/features'], ['src/bench', 'src/store', 'src/ui'], ['src/workers'], ['src/core']];

const zones = ROOMS.flatMap((targets, level) =>
  targets.flatMap((target) =>
    ROOMS.slice(0, level)
      .flat()
      .map((from) => ({
        target: `./${target}`,
        from: `./${from}`,
        message: 'Arrows run app → features → bench, store, ui → workers → core.',
      })),
  ),
);
/** Beside the house: they reach the core and their own files only. */
const BESIDE = ['cli', 'server'].flatMap((target) =>
  ['app', 'src/features', 'src/bench', 'src/store', 'src/ui', 'src/workers'].map((from) => ({
    target: `./${target}`,
    from: `./${from}`,
    message: `${target} reaches only core.`,
  })),
);
/** Rooms of the core in their own order, so that no two lean on each other; the generator knows nothing of the core. */
const CORE = [
  'derive',
  'formats',
  'job',
  'arrange',
  'relate',
  'outline',
  'planar',
  'shelf',
  'calibrate',
  'adjust',
  'raster',
  'pictures',
  'space',
  'geometry',
  'units',
  'schema',
  'basics',
];
const ALLOWED_UP = { formats: ['job'], derive: CORE };
const CORE_ZONES = CORE.flatMap((room, level) =>
  CORE.slice(0, level)
    .filter((upper) => !(ALLOWED_UP[room] ?? []).includes(upper))
    .map((upper) => ({
      target: `./src/core/${room}`,
      from: `./src/core/${upper}`,
      message: `core/${room} stands below core/${upper}.`,
    })),
);
const GENERATOR = [
  { target: './demo/generator', from: './src', message: 'The generator judges the core, so it must not use it.' },
];

/** What judges components follows every function through, which takes a fifth of the time: it is for where components and their hooks are. */
const OF_COMPONENTS = Object.fromEntries(
  expo
    .flatMap(({ rules = {} }) => Object.keys(rules))
    .filter((rule) => rule.startsWith('react-hooks/'))
    .map((rule) => [rule, 'off']),
);

module.exports = [
  { ignores: ['node_modules/', 'dist/', 'public/', '.expo/', '.cache/', 'test-results/', 'expo-env.d.ts'] },
  ...expo,
  {
    files: ['**/*.{ts,tsx}'],
    // What others wrote is in no circle of ours.
    settings: { 'import/ignore': ['node_modules'] },
    rules: {
      'import/no-restricted-paths': ['error', { zones: [...zones, ...BESIDE, ...CORE_ZONES, ...GENERATOR] }],
      'import/no-cycle': ['error', { ignoreExternal: true }],
      // The type check says the same, and sooner.
      'import/namespace': 'off',
      'max-lines': ['error', { max: 400, skipBlankLines: false }],
      'max-lines-per-function': ['error', { max: 50, skipComments: true }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false },
      ],
      'react-hooks/exhaustive-deps': 'error',
      // fast-check is used as its documentation writes it.
      'import/no-named-as-default-member': 'off',
      'import/no-named-as-default': 'off',
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'JSXOpeningElement[name.name=/^(ActivityIndicator|ProgressBar)$/]:not(:has(JSXAttribute[name.name="accessibilityLabel"]))',
          message: 'Say what is being waited for: accessibilityLabel.',
        },
        // Of two or three outcomes, one after the other; what is more is a table, or a function that returns early.
        {
          selector:
            'ConditionalExpression > ConditionalExpression:matches(.test, .consequent), ConditionalExpression > ConditionalExpression.alternate > ConditionalExpression.alternate',
          message: 'A choice within a choice: a table, or a function with early returns.',
        },
      ],
      // A schema and the type that follows from it share their name.
      '@typescript-eslint/no-redeclare': 'off',
    },
  },
  {
    // A room is entered by its door: other rooms import its index only.
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*-for-tests.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '^\\.\\./[a-z]+/.+', message: 'Import the room (../room), not a file in it.' },
            {
              group: ['react', 'react-*', 'expo*', 'node:*', 'three'],
              message: 'The core has no interface, no DOM, no Node.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['src/{core,workers,store}/**', '{cli,demo,server,reference,scripts,bench,e2e}/**', '**/*.test.ts'],
    rules: OF_COMPONENTS,
  },
  // Markup takes a line a property.
  { files: ['**/*.tsx'], rules: { 'max-lines-per-function': ['error', { max: 80, skipComments: true }] } },
  // What is drawn for the demo, and where things stand on it, is one list each.
  {
    files: ['demo/jobs-drawn.ts', 'demo/truth.ts', 'reference/hands/fillets.ts'],
    rules: { 'max-lines-per-function': 'off' },
  },
  // What is handed to a page to run there has to be one function.
  { files: ['demo/film.ts'], rules: { 'max-lines-per-function': 'off' } },
  // Tests may reach anywhere and use Node: they judge from outside.
  {
    files: ['**/*.test.{ts,tsx}', 'e2e/**', 'bench/**'],
    rules: {
      'max-lines': ['error', { max: 620 }],
      'max-lines-per-function': 'off',
      'react-hooks/rules-of-hooks': 'off',
      'import/no-restricted-paths': 'off',
      // Nothing imports a test, so none is in a circle; looking for it took a third of the time.
      'import/no-cycle': 'off',
    },
  },
];
