import js from '@eslint/js'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['results', '*.config.*'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      // what a fixture takes is said by its name, also where it takes nothing
      'no-empty-pattern': 'off',
      // a step that is not waited for makes a journey that fails now and then
      '@typescript-eslint/no-floating-promises': 'error',
    },
  },
  {
    files: ['journeys/**', 'support/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: "CallExpression[callee.property.name='waitForTimeout']", message: 'Wait for what is seen, never for a time.' },
      ],
    },
  },
)
