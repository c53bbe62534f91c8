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
  session: ['api', 'outbox', 'shell', 'ui'],
  outbox: ['api', 'session', 'shell'],
  core: ['api', 'outbox'],
  gauge: ['api', 'core', 'outbox', 'parts', 'session', 'shell', 'ui', 'units'],
  tray: ['api', 'core', 'gauge', 'outbox', 'session', 'shell', 'stations', 'ui', 'units'],
  parts: ['api', 'shell', 'tray', 'ui', 'units'],
  shell: ['api', 'core', 'outbox', 'session', 'stations', 'ui', 'units'],
  shop: ['api', 'outbox', 'session', 'shell', 'ui', 'units'],
  bench: ['api', 'session', 'shell', 'stations', 'ui', 'units'],
};

/** Imports of these folders are errors, from anywhere below src. */
const closed = (folders, why) => ({
  'no-restricted-imports': ['error', { patterns: [{ regex: `^(\\.\\./)+(${folders.join('|')})(/|$)`, message: why }] }],
});

const boundaries = Object.entries(rooms).map(([room, known]) => ({
  files: [`src/${room}/**`],
  rules: closed(
    [...Object.keys(rooms), 'stations'].filter((other) => other !== room && !known.includes(other)),
    `src/${room} may import from: ${known.join(', ') || 'nothing'}.`,
  ),
}));

export default tseslint.config(
  { ignores: ['dist', 'public/core', 'src/api/schema.d.ts'] },
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
  { files: ['eslint.config.js', 'spoken-names.js'], ...tseslint.configs.disableTypeChecked },
);
