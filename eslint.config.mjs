import { readdirSync } from 'node:fs';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Floors of the core, top to bottom; each may import only from those above it and from itself. */
const FLOORS = [
  'quantity',
  'geometry',
  'machine',
  'shop',
  'cutting',
  'part',
  'document',
  'stock',
  'holding',
  'path',
  'operation',
  'program',
  'simulate',
  'judge',
  'plan',
  'view',
  'advise',
  'release',
  'log',
];

const NOT_PURE = '^(react|react-native|react-dom|node:.*|fs|path|express|three)$';
const UNREPEATABLE = [
  { object: 'Math', property: 'random' },
  { object: 'Date', property: 'now' },
];
const LAST_DIGIT = 'Its last digit is the engine’s to choose: take it from maths.';
/** Functions engines need not agree on. */
const FREE =
  'acos acosh asin asinh atan atan2 atanh cbrt cos cosh exp expm1 hypot log log10 log1p log2 pow sin sinh tan tanh'
    .split(' ')
    .map((property) => ({ object: 'Math', property, message: LAST_DIGIT }));

const upwards = (i) =>
  i + 1 < FLOORS.length
    ? [
        {
          regex: `^(\\.\\./)+(${FLOORS.slice(i + 1).join('|')})(/|$)`,
          message: 'Imports run one way: only from floors above.',
        },
      ]
    : [];

/** Jobs for tests are built with all of the core: only where it is tied together may they be tried. */
const builders = (i) =>
  i < FLOORS.indexOf('plan')
    ? [{ regex: '/testing/(jobs|every-kind|steady-jobs)$', message: 'A test stands on the floor it reaches.' }]
    : [];

const floorRules = FLOORS.flatMap((floor, i) => [
  {
    files: [`packages/core/src/${floor}/**/*.ts`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: NOT_PURE,
              message: 'The core is pure: no interface code, no Node modules.',
            },
            { group: ['@tidypath/*'], message: 'The core imports itself by relative path.' },
            ...upwards(i),
          ],
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'performance'],
      'no-restricted-properties': ['error', ...UNREPEATABLE, ...FREE],
      'no-restricted-syntax': ['error', { selector: 'BinaryExpression[operator="**"]', message: LAST_DIGIT }],
    },
  },
  {
    files: [`packages/core/src/${floor}/**/*.test.ts`],
    rules: {
      'no-restricted-imports': ['error', { patterns: [...upwards(i), ...builders(i)] }],
      'no-restricted-globals': ['error', 'window', 'document', 'performance'],
      'no-restricted-properties': ['error', ...UNREPEATABLE],
      'no-restricted-syntax': 'off',
    },
  },
]);

/** Rooms of the web app, top to bottom; features stand below them all and do not know each other. */
const ROOMS = ['theme', 'api', 'compute', 'ui', 'shell', 'session', 'scene'];
const FEATURES = readdirSync('apps/web/src/features', { withFileTypes: true })
  .filter((f) => f.isDirectory())
  .map((f) => f.name);

const roomRule = (files, names, message) => ({
  files: [files],
  rules: {
    'no-restricted-imports': ['error', { patterns: [{ regex: `^(\\.\\./)+(${names.join('|')})(/|$)`, message }] }],
  },
});

const roomRules = [
  ...ROOMS.map((room, i) =>
    roomRule(
      `apps/web/src/${room}/**/*.{ts,tsx}`,
      [...ROOMS.slice(i + 1), 'features'],
      'Imports run one way: only from rooms above.',
    ),
  ),
  ...FEATURES.map((feature) =>
    roomRule(
      `apps/web/src/features/${feature}/**/*.{ts,tsx}`,
      FEATURES.filter((f) => f !== feature),
      'Features do not know each other; what they share stands in ui, session or scene.',
    ),
  ),
];

export default tseslint.config(
  {
    ignores: [
      '**/node_modules/**',
      '**/dist/**',
      '**/.expo/**',
      'data/**',
      'coverage/**',
      '**/*.js',
      '**/*.mjs',
      '**/*.cjs',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
    },
  },
  ...floorRules,
  ...roomRules,
  {
    files: ['packages/controller/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ regex: NOT_PURE, message: 'The machine is pure.' }] }],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'performance'],
      'no-restricted-properties': ['error', ...UNREPEATABLE, ...FREE],
      'no-restricted-syntax': ['error', { selector: 'BinaryExpression[operator="**"]', message: LAST_DIGIT }],
    },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs['recommended-latest'].rules,
  },
  { files: ['**/*.d.ts'], rules: { '@typescript-eslint/no-empty-object-type': 'off' } },
);
