import tseslint from 'typescript-eslint';
import literals from 'eslint-plugin-i18next';
import hooks from 'eslint-plugin-react-hooks';

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.zest/**', '.data/**', '**/*.cjs'] },
  ...tseslint.configs.recommended,
  {
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ['*.js', 'scripts/mutants/*.mjs'] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-console': 'error',
      eqeqeq: 'error',
      'object-shorthand': ['error', 'properties'],
      'no-useless-rename': 'error',
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      complexity: ['error', 20],
      'max-lines-per-function': ['error', { max: 120 }],
      'max-len': ['error', { code: 120, ignoreRegExpLiterals: true }],
    },
  },
  // A describe is a list of cases, and as long as that.
  { files: ['**/*.test.ts'], rules: { 'max-lines-per-function': 'off' } },
  // SQL, and messages in many languages, are data.
  {
    files: ['apps/server/src/db/migrations.ts', 'packages/core/src/results/messages.ts'],
    rules: { 'max-len': 'off' },
  },
  { files: ['apps/web/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
  // What is read or heard comes from a message catalogue.
  {
    files: ['apps/web/src/**/*.tsx', 'apps/server/src/publish/prints/**/*.tsx'],
    plugins: { i18next: literals },
    rules: {
      'i18next/no-literal-string': [
        'error',
        {
          framework: 'react',
          mode: 'jsx-only',
          'should-validate-template': true,
          callees: {
            exclude: [
              'teacherText',
              'say',
              'labelText',
              'field',
              '.*\\.(includes|join|map|replace)',
            ],
          },
          'jsx-attributes': {
            include: [
              '^(aria-label|aria-description|aria-valuetext|alt|label|title|placeholder|helperText)$',
              '^(helper|heading|primary|secondary|addLabel|words|empty|message|titleAccess|note)$',
            ],
          },
          'object-properties': { include: ['^(name|label|title|words|text|message|helper)$'] },
          words: {
            // Signs, figures and units, names of keys, and what is the same in every language.
            exclude: [
              '^[^A-Za-z]*$',
              '^[^A-Za-z]*(s|ms|cm|m|mm|dB|MB|kB|Hz|R|Zest Frame)[^A-Za-z]*$',
              '^(/go|/remote|https://.*|h[1-6]|Ctrl|Alt|Shift|Space|Enter|Escape|Delete)$',
            ],
          },
        },
      ],
    },
  },
);
