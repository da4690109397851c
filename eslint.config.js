import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Core knows no browser, no Node and no framework: it runs in pages, workers, servers and the command line alike. */
const OUTSIDE_CORE = [
  'window',
  'document',
  'navigator',
  'fetch',
  'process',
  'Buffer',
  'require',
  'setTimeout',
  'setInterval',
  'crypto',
  'performance',
  'localStorage',
];

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', '.angular/', '.data/', '**/*.generated.ts', 'apps/server/drizzle/'] },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: { project: ['./tsconfig.json', './apps/bench/tsconfig.json'], tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/explicit-module-boundary-types': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: false } }],
      '@typescript-eslint/require-await': 'off',
      // An interface gives the type of a schema its name.
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      eqeqeq: 'error',
      'max-lines': ['error', { max: 520, skipBlankLines: true }],
    },
  },
  {
    files: ['packages/{contract,core}/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-globals': ['error', ...OUTSIDE_CORE],
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@angular/*', 'node:*', 'fs', 'path', 'rxjs', '@brelvin/*', '!@brelvin/contract'],
              message: 'Core is pure: no DOM, Node, Angular or app.',
            },
          ],
        },
      ],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Pictures and results repeat exactly.' }],
    },
  },
  {
    files: ['packages/{contract,core,io}/src/index.ts'],
    rules: {
      'no-restricted-syntax': ['error', { selector: 'ExportAllDeclaration', message: 'Name what is used outside.' }],
    },
  },
  {
    files: ['apps/bench/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      // Angular needs the classes that are injected or decorated as values.
      '@typescript-eslint/consistent-type-imports': 'off',
      '@angular-eslint/component-selector': ['error', { type: ['element', 'attribute'], prefix: 'brelvin', style: 'kebab-case' }],
    },
  },
  {
    files: ['apps/bench/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    // A port fills its button by itself.
    rules: { '@angular-eslint/template/elements-content': ['error', { allowList: ['brelvin-port'] }] },
  },
  {
    files: ['**/*.spec.ts', 'tests/**/*.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off', '@typescript-eslint/unbound-method': 'off' },
  },
);
