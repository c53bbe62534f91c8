import js from '@eslint/js';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import spokenNames from './spoken-names.js';

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
const closed = (folders, why) => ({
  'no-restricted-imports': ['error', { patterns: [{ regex: `^(\\.\\./)+(${folders.join('|')})(/|$)`, message: why }] }],
});

const boundaries = Object.entries(rooms).map(([room, known]) => ({
  files: [`src/${room}/**`],
  rules: closed(
    Object.keys(rooms).filter((other) => other !== room && !known.includes(other)),
    `src/${room} may import from: ${known.join(', ') || 'nothing'}.`,
  ),
}));

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  hooks.configs.flat.recommended,
  a11y.flatConfigs.strict,
  {
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      // A form that was just asked for takes the focus: the bench is worked from the keyboard.
      'jsx-a11y/no-autofocus': 'off',
    },
  },
  ...boundaries,
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
  { plugins: { bench: { rules: { 'spoken-names': spokenNames } } }, rules: { 'bench/spoken-names': 'error' } },
  { files: ['eslint.config.js', 'spoken-names.js', 'service-worker.js'], ...tseslint.configs.disableTypeChecked },
);
