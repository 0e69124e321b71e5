import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'
import house from './floors.js'

export default ts.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { 'react-hooks': hooks, house },
    rules: {
      'house/floors': 'error',
      'house/circles': 'error',
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.name=/^use(Project|Draw)$/][arguments.length=0]',
          message:
            'Say which fields: useProject((s) => s.one) or usePick(...); the whole store changes at every key.',
        },
        {
          selector: "BinaryExpression[left.property.name='name'][left.object.name='tool']",
          message: 'Say what the tool does at this moment in its record, or ask held(tool, name).',
        },
        {
          selector: "BinaryExpression[left.property.name='name'][left.object.property.name='tool']",
          message: 'Say what the tool does at this moment in its record, or ask held(tool, name).',
        },
        {
          selector: 'TSAsExpression > TSAsExpression > TSUnknownKeyword',
          message:
            'Declare the shape of the answer at its endpoint; a type that is only claimed is not checked.',
        },
      ],
      complexity: ['error', 20],
      'max-lines-per-function': ['error', 60],
      'max-lines': ['error', 500],
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
    },
  },
  {
    // A test makes up the part of a thing that it needs, and is described in one place.
    files: ['src/**/*.test.ts', 'src/testing/*.ts'],
    rules: { 'no-restricted-syntax': 'off', 'max-lines-per-function': 'off' },
  },
)
