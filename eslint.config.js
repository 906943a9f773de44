import js from '@eslint/js';
import globals from 'globals';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/**
 * Core's wings from the ground up, each with its rooms in the order of their imports: a room may use those before it, never
 * those after. docs/architecture.md draws them.
 */
const CORE_WINGS = {
  base: ['errors', 'text', 'quantity', 'numeric'],
  circuit: ['pinout', 'circuit', 'continuity', 'changes', 'models', 'devices', 'figures'],
  analysis: ['audio', 'analysis', 'readouts', 'meter'],
  bench: ['photos', 'judge', 'isolate'],
  work: ['drawer', 'desk', 'rework', 'bodies', 'board', 'wiring', 'steps', 'fit'],
  sheet: ['formats', 'sheet', 'record', 'draw'],
};
const coreRooms = Object.entries(CORE_WINGS).flatMap(([wing, rooms]) =>
  rooms.map((room) => ({ wing, room })),
);

/** A room as the others import it: the neighbour in its own wing, or through the wing. */
const importsOf = ({ wing, room }, from) => (wing === from.wing ? `../${room}` : `../../${wing}/${room}`);

const coreRoomRules = coreRooms.map((own, i) => ({
  files: [`packages/core/src/${own.wing}/${own.room}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...coreRooms.slice(i + 1).map((later) => ({
            group: [`${importsOf(later, own)}/*`],
            message: `${own.room} stands below ${later.room} and must not use it.`,
          })),
          ...coreRooms
            .filter((other) => other !== own)
            .map((other) => ({
              group: [`${importsOf(other, own)}/*`, `!${importsOf(other, own)}/index.ts`],
              message: 'Use another room through its index.',
            })),
          { group: ['node:*', 'react', 'antd'], message: 'The core has no environment and no interface.' },
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', '.cache/**', 'test-results/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    languageOptions: { globals: globals.node },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      // Parts and readouts are typed by their kinds: what a kind has is known by its name, never looked up by a text.
      'dot-notation': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: 'TSIndexSignature',
          message: 'Give the fields their names, or use a Map or a Record of a union of names.',
        },
        {
          selector:
            "TSAsExpression[expression.type='TSAsExpression'][expression.typeAnnotation.type='TSUnknownKeyword']",
          message: 'Read it through a schema or a guard instead of telling the compiler what it is.',
        },
        {
          selector:
            "MemberExpression[computed=true][property.type='Literal'][property.value=/^[a-z]/i][object.property.name=/^(pins|params|fields)$/]",
          message: 'Pins, parameters and fields of a kind have names of their own.',
        },
      ],
      'no-eval': 'error',
      'no-new-func': 'error',
    },
  },
  ...coreRoomRules,
  {
    files: ['scripts/screenshots.mjs', 'scripts/lib/bench-page.mjs'],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    languageOptions: { globals: globals.browser },
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  {
    // Routes say shape and status, services say rules; repositories alone touch the database. Effects read rows by their kind.
    files: ['apps/server/src/features/**/*.ts', 'apps/server/src/*.ts'],
    ignores: ['**/repository.ts', '**/effects.ts', '**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['sequelize', '**/database/models/*'],
              allowTypeImports: true,
              message: 'A repository touches the database; ask it.',
            },
          ],
        },
      ],
    },
  },
  {
    // Rooms that all features use know none of them, nor the frame; pieces of the page know no unit.
    files: ['apps/web/src/{api,compute,unit,saving,people,ui}/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^([.][.]/)+(app|features)/',
              message: 'This room stands below the features and the frame.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['apps/web/src/features/*/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^[.][.]/[a-z-]+/(?!index)',
              message: "A feature never uses another feature's inside; use its index.",
            },
            {
              regex: '^([.][.]/)+app/',
              message: 'The frame is around the features; they do not reach into it.',
            },
          ],
        },
      ],
    },
  },
);
