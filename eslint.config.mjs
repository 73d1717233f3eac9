import js from '@eslint/js';
import boundaries from 'eslint-plugin-boundaries';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import prettier from 'eslint-config-prettier';
import react from 'eslint-plugin-react';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Who may import whom (docs/architecture.md). What is not named here is refused. */
const MAY_IMPORT = {
  core: [],
  config: [],
  log: [],
  database: ['core', 'config', 'log'],
  protocol: ['core'],
  services: ['core', 'config', 'log', 'database', 'protocol'],
  jobs: ['config', 'log', 'database', 'services'],
  player: ['core', 'protocol'],
  fleet: ['core', 'protocol', 'player'],
  bridge: ['core', 'protocol'],
  demo: ['core', 'database', 'services'],
  web: ['core', 'log', 'services', 'protocol'],
  interface: ['core', 'services', 'web', 'player'],
  app: ['core', 'protocol', 'services', 'web', 'interface'],
  proxy: [],
  bin: ['core', 'config', 'log', 'database', 'protocol', 'services', 'jobs', 'fleet', 'bridge', 'demo', 'scripts'],
};

const folders = Object.keys(MAY_IMPORT).filter((name) => !['config', 'log', 'proxy', 'bin'].includes(name));

export default tseslint.config(
  { ignores: ['.next/', '.cli/', 'data/', 'node_modules/', 'public/player/', 'next-env.d.ts', 'test-results/'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': ['error', { ignoreVoid: true }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      // Handlers that wait for a meaning, and models that Sequelize fills, are empty on purpose.
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  {
    files: ['src/**/*.tsx'],
    plugins: { react, 'react-hooks': reactHooks, 'jsx-a11y': jsxA11y },
    settings: { react: { version: '19' } },
    rules: {
      ...react.configs.flat.recommended.rules,
      ...react.configs.flat['jsx-runtime'].rules,
      ...jsxA11y.flatConfigs.strict.rules,
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'react/prop-types': 'off',
      'react/no-unescaped-entities': 'off',
    },
  },
  {
    files: ['src/interface/**/*.ts'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['{src,bin}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts', 'src/**/tests/**'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: { alwaysTryTypes: true } },
      'boundaries/elements': [
        ...folders.map((name) => ({ type: name, pattern: `src/${name}` })),
        ...['config', 'log', 'proxy'].map((name) => ({ type: name, pattern: `src/${name}.ts`, partialMatch: false })),
        { type: 'bin', pattern: 'bin' },
        { type: 'scripts', pattern: 'scripts' },
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: Object.entries(MAY_IMPORT).map(([from, allowed]) => ({
            from: { element: { type: from } },
            allow: { to: { element: { type: [from, ...allowed] } } },
          })),
        },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/tests/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['node:*', '@/*', 'react', 'react-dom', 'next', 'next/*'], message: 'The core stands alone.' },
          ],
        },
      ],
      'no-restricted-globals': ['error', { name: 'fetch', message: 'The core does no input or output.' }],
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'The core reads no clock: take the instant as an argument.',
        },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core reads no clock: take the instant as an argument.',
        },
      ],
    },
  },
  {
    files: ['scripts/**', 'bench/**', '*.config.mjs', 'bin/*.mjs'],
    languageOptions: {
      globals: {
        module: 'writable',
        process: 'readonly',
        console: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        URL: 'readonly',
      },
    },
  },
  { files: ['bin/**', 'bench/**', 'scripts/**', 'e2e/faults/**'], rules: { 'no-console': 'off' } },
  prettier,
);
