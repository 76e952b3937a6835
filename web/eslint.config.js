import js from '@eslint/js'
import imports from 'eslint-plugin-import-x'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

/* Imports go one way: document and engine know nothing of the window, session nothing of what is drawn. */
const floors = [
  { target: './src/api', from: './src/!(api|testing)/**' },
  { target: './src/document', from: './src/!(api|document|testing)/**' },
  { target: './src/engine', from: './src/!(api|engine|testing)/**' },
  { target: './src/session', from: './src/!(api|document|engine|session|testing)/**' },
]

export default ts.config(
  { ignores: ['dist', 'public', 'src/engine/gen', 'src/api/schema.d.ts', '*.config.*'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    languageOptions: { parserOptions: { projectService: true } },
    plugins: { 'react-hooks': hooks, 'import-x': imports },
    settings: {
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/resolver-next': [imports.createNodeResolver({ extensions: ['.ts', '.tsx', '.js'] })],
    },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-floating-promises': 'error',
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      'import-x/no-restricted-paths': ['error', { zones: floors }],
    },
  },
)
