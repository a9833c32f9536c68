import tseslint from 'typescript-eslint';
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
);
