import { defineConfig } from 'oxlint';

/** What a folder of src may import from. A new arrow is argued for in docs/architecture.md; one that is gone is struck here. */
const rooms = {
  api: [],
  ui: ['api'],
  units: ['api'],
  outbox: ['api'],
  session: ['api', 'outbox', 'ui'],
  core: ['api', 'outbox'],
  shell: ['api', 'core', 'outbox', 'session', 'ui', 'units'],
  tray: ['api', 'core', 'gauge', 'outbox', 'parts', 'session', 'shell', 'ui', 'units'],
  parts: ['api', 'outbox', 'session', 'shell', 'ui', 'units'],
  gauge: ['api', 'core', 'outbox', 'parts', 'session', 'shell', 'ui', 'units'],
  shop: ['api', 'outbox', 'session', 'shell', 'ui', 'units'],
  bench: ['api', 'session', 'shell', 'ui', 'units'],
  stations: ['api', 'core', 'gauge', 'outbox', 'parts', 'session', 'shell', 'tray', 'ui', 'units'],
};

// No folder knows one that knows it back, by whatever way round.
const knows = (room, other, seen = new Set()) =>
  rooms[room].some((known) => known === other || (!seen.has(known) && knows(known, other, seen.add(known))));
for (const room of Object.keys(rooms)) {
  if (knows(room, room)) throw new Error(`src/${room} knows itself by way of others: ${rooms[room].join(', ')}.`);
}

/** Imports of these folders are errors, from anywhere below src. */
const closed = (folders, message) => ({
  'no-restricted-imports': ['error', { patterns: [{ regex: `^(\\.\\./)+(${folders.join('|')})(/|$)`, message }] }],
});

/** Rules beyond those that find what is plainly wrong; each is an error. */
const strict = [
  'no-array-constructor',
  'no-case-declarations',
  'no-empty',
  'no-fallthrough',
  'no-prototype-builtins',
  'no-regex-spaces',
  'no-unexpected-multiline',
  'no-useless-assignment',
  'no-useless-constructor',
  'no-var',
  'prefer-const',
  'prefer-rest-params',
  'prefer-spread',
  'preserve-caught-error',
  'react/rules-of-hooks',
  'react/unsupported-syntax',
  'typescript/no-deprecated',
  'typescript/no-dynamic-delete',
  'typescript/no-empty-object-type',
  'typescript/no-explicit-any',
  'typescript/no-extraneous-class',
  'typescript/no-generated-empty-object-type',
  'typescript/no-invalid-void-type',
  'typescript/no-mixed-enums',
  'typescript/no-namespace',
  'typescript/no-non-null-asserted-nullish-coalescing',
  'typescript/no-non-null-assertion',
  'typescript/no-require-imports',
  'typescript/no-unnecessary-boolean-literal-compare',
  'typescript/no-unnecessary-condition',
  'typescript/no-unnecessary-template-expression',
  'typescript/no-unnecessary-type-arguments',
  'typescript/no-unnecessary-type-assertion',
  'typescript/no-unnecessary-type-constraint',
  'typescript/no-unnecessary-type-conversion',
  'typescript/no-unnecessary-type-parameters',
  'typescript/no-unsafe-argument',
  'typescript/no-unsafe-assignment',
  'typescript/no-unsafe-call',
  'typescript/no-unsafe-class-instance-assignment',
  'typescript/no-unsafe-enum-assignment',
  'typescript/no-unsafe-enum-comparison',
  'typescript/no-unsafe-function-type',
  'typescript/no-unsafe-member-access',
  'typescript/no-unsafe-return',
  'typescript/only-throw-error',
  'typescript/prefer-literal-enum-member',
  'typescript/prefer-promise-reject-errors',
  'typescript/prefer-reduce-type-parameter',
  'typescript/prefer-return-this-type',
  'typescript/related-getter-setter-pairs',
  'typescript/require-await',
  'typescript/unified-signatures',
  'typescript/use-unknown-in-catch-callback-variable',
];

export default defineConfig({
  plugins: ['eslint', 'typescript', 'react', 'jsx-a11y'],
  jsPlugins: ['./spoken-names.js'],
  options: { typeAware: true },
  categories: { correctness: 'error' },
  ignorePatterns: ['dist', 'src/api/schema.d.ts'],
  rules: {
    ...Object.fromEntries(strict.map((rule) => [rule, 'error'])),
    'typescript/ban-ts-comment': ['error', { minimumDescriptionLength: 10 }],
    'typescript/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
    'typescript/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    'typescript/restrict-plus-operands': [
      'error',
      { allowAny: false, allowBoolean: false, allowNullish: false, allowNumberAndString: false, allowRegExp: false },
    ],
    'typescript/restrict-template-expressions': ['error', { allowNumber: true }],
    'typescript/return-await': ['error', 'error-handling-correctness-only'],
    // A form that was just asked for takes the focus: the bench is worked from the keyboard.
    'jsx-a11y/no-autofocus': 'off',
    // Two that only this linter has: a cell of a table may be empty, and a role may say what no element does.
    'jsx-a11y/control-has-associated-label': 'off',
    'jsx-a11y/prefer-tag-over-role': 'off',
    'bench/spoken-names': 'error',
  },
  overrides: [
    ...Object.entries(rooms).map(([room, known]) => ({
      files: [`src/${room}/**`],
      rules: closed(
        Object.keys(rooms).filter((other) => other !== room && !known.includes(other)),
        `src/${room} may import from: ${known.join(', ') || 'nothing'}.`,
      ),
    })),
    {
      // What builds the pages is plain JavaScript: it has no types to be held to.
      files: ['*.js'],
      rules: Object.fromEntries(
        [...strict, 'typescript/restrict-plus-operands']
          .filter((rule) => /unsafe|plus-operands/.test(rule))
          .map((rule) => [rule, 'off']),
      ),
    },
    {
      // A station knows no other station: what two of them need lives in a room of its own.
      files: ['src/stations/*/**'],
      rules: {
        'no-restricted-imports': [
          'error',
          { patterns: [{ regex: '^\\.\\./[a-z-]+/', message: 'A station may not import from another station.' }] },
        ],
      },
    },
  ],
});
