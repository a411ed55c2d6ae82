import { readdirSync, readFileSync } from 'node:fs';
import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/**
 * The folders of src/core in the order in which each may build on the ones before it. A folder may
 * import from earlier ones only; single modules at the top of the core are for all.
 */
const CORE_FOLDERS = [
  ...['notes', 'paths', 'chords', 'collections', 'keys', 'time', 'chart', 'harmony', 'lenses'],
  ...[
    'crossings',
    'neck',
    'targets',
    'phrases',
    'lines',
    'licks',
    'exercises',
    'band',
    'listening',
    'drills',
    'log',
    'formats',
  ],
];
/** The folders of src/lib in the same order: what all share, what a chart is studied with, screens, the server. */
const LIB_FOLDERS = [
  ...['audio', 'ui', 'kept', 'neck', 'live', 'settings', 'study', 'formats', 'log', 'engine'],
  ...['paper', 'workers', 'frame', 'listening', 'notation', 'stage', 'workbench'],
  ...['book', 'plan', 'screens', 'shapes', 'drills', 'licks', 'practice', 'play', 'server'],
];

for (const [root, known] of /** @type {const} */ ([
  ['src/core', CORE_FOLDERS],
  ['src/lib', LIB_FOLDERS],
]))
  for (const { name } of readdirSync(new URL(root, import.meta.url), { withFileTypes: true }))
    if (!name.includes('.') && !known.includes(name))
      throw new Error(`${root}/${name} has no place in the order of eslint.config.js yet.`);

/** What the folders of the core may import from elsewhere: readers of files, and the pitch of a sound. */
const CORE_PACKAGES = {
  formats: ['abcjs', 'fast-xml-parser', 'fflate', '@tonejs/midi', 'midi-file', 'wavefile', 'zod'],
  listening: ['fft.js', 'pitchy'],
};

/** What the core's package gives, by the file it is of: the program takes it where others do. */
const GIVEN = (() => {
  const entry = readFileSync(new URL('src/package/index.ts', import.meta.url), 'utf8');
  const names = (/** @type {string} */ list) =>
    list.split(',').map((name) => name.replace('type', '').trim());
  const given = [...entry.matchAll(/^export (?:type )?\{([^}]*)\};/gmu)].flatMap(([, list = '']) =>
    names(list),
  );
  return [...entry.matchAll(/^import (?:type )?\{([^}]*)\} from '\$core\/([^']+)';/gmu)]
    .map(([, list = '', file = '']) => ({
      regex: `^\\$core/${file}$`,
      importNames: names(list).filter((name) => name !== '' && given.includes(name)),
      message: "The core's package gives it: import it from corvel-core.",
    }))
    .filter(({ importNames }) => importNames.length > 0);
})();

/** @param {string} folder */
function libImports(folder) {
  const later = LIB_FOLDERS.slice(LIB_FOLDERS.indexOf(folder) + 1);
  return {
    files: [`src/lib/${folder}/**/*.{ts,svelte}`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...GIVEN,
            ...later.map((other) => ({
              regex: `^(?:\\$lib|(?:\\.\\./)+)/?${other}/`,
              message: `src/lib/${folder} comes before ${other}: see LIB_FOLDERS.`,
            })),
          ],
        },
      ],
    },
  };
}

/** @param {string} folder */
function coreImports(folder) {
  const later = CORE_FOLDERS.slice(CORE_FOLDERS.indexOf(folder) + 1);
  /** @type {Readonly<Record<string, readonly string[]>>} */
  const allowed = CORE_PACKAGES;
  const packages = allowed[folder] ?? [];
  return {
    files: [`src/core/${folder}/**/*.ts`],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(?!\\.{1,2}/${packages.map((name) => `|${name}$`).join('')})`,
              message: 'src/core is pure: no Node.js, no interface, no packages but for files.',
            },
            {
              regex: '\\.\\./(lib|routes|hooks)',
              message: 'src/core does not reach out of itself.',
            },
            ...(later.length > 0
              ? [
                  {
                    regex: `^(?:\\.\\./)+(?:${later.join('|')})/`,
                    message: `src/core/${folder} comes before this folder: see CORE_FOLDERS.`,
                  },
                ]
              : []),
          ],
        },
      ],
    },
  };
}

const PLAIN_LITERALS = {
  selector: 'ObjectExpression > SpreadElement > ObjectExpression',
  message: 'Write the properties plainly: in a spread the compiler does not see a wrong one.',
};

export default ts.config(
  {
    ignores: [
      '.svelte-kit/',
      'build/',
      'packages/core/dist/',
      'node_modules/',
      '.bench/',
      'data/',
      'demo-data/',
    ],
  },
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs['flat/recommended'],
  prettier,
  ...svelte.configs['flat/prettier'],
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'no-undef': 'off',
      'no-irregular-whitespace': 'off',
      eqeqeq: 'error',
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      'svelte/no-navigation-without-resolve': 'off',
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig },
    },
  },
  ...CORE_FOLDERS.map(coreImports),
  ...LIB_FOLDERS.map(libImports),
  {
    files: ['src/routes/**/*.{ts,svelte}', 'src/*.ts', 'src/lib/**/*.test.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: GIVEN }] },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    languageOptions: { globals: {} },
    rules: {
      'no-restricted-globals': [
        'error',
        ...['window', 'document', 'navigator', 'process', 'fetch', 'console', 'crypto'],
        ...['localStorage', 'sessionStorage', 'indexedDB', 'Date', 'performance'],
        ...['setTimeout', 'setInterval', 'queueMicrotask', 'globalThis'],
      ].map((name) =>
        name === 'error'
          ? name
          : {
              name,
              message: 'src/core is pure: no page, no Node.js, no storage, clock or chance.',
            },
      ),
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'src/core draws by seed: core/random.ts.' },
      ],
    },
  },
  { rules: { 'no-restricted-syntax': ['error', PLAIN_LITERALS] } },
  {
    files: ['src/{core,lib}/**/*.{ts,svelte}'],
    ignores: [
      'src/**/*.test.ts',
      'src/{core,lib}/listening/**',
      'src/{core,lib}/**/{sound,audio}/**',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        PLAIN_LITERALS,
        {
          selector: 'Literal[raw=/^[0-9._]+e-/]',
          message: 'Time is exact: moments are whole ticks and are compared with ===.',
        },
      ],
    },
  },
  {
    files: ['*.config.{js,ts}', '**/*.svelte'],
    rules: { 'no-restricted-exports': 'off' },
  },
);
