/** The examples over the functions of the core are run as they stand: `call; // its value as JSON`. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { read } from 'corvel-core';

type Module = Readonly<Record<string, unknown>>;
const MODULES = import.meta.glob<Module>(['./**/*.ts', '!./**/*.test.ts'], { eager: true });
/** What an example may use besides its own module: anything of the core. */
const CORE: Module = Object.assign({}, ...Object.values(MODULES)) as Module;

const CHECKED = /^(.+?); \/\/ (.+)$/u;

/** The examples of a source that say what a call gives, as programs. */
const examplesOf = (source: string): readonly (readonly string[])[] =>
  [...source.matchAll(/@example((?:(?!\*\/)[^])*)\*\//gu)]
    .map(([, text = '']) => text.split('\n').map((line) => line.replace(/^\s*\* ?/u, '').trim()))
    .filter((lines) => lines.some((line) => CHECKED.test(line)));

const FILES = Object.entries(MODULES)
  .map(([file, own]) => {
    const source = readFileSync(join(import.meta.dirname, file), 'utf8');
    return { file, own, examples: examplesOf(source) };
  })
  .filter(({ examples }) => examples.length > 0);

test('a good part of the core shows by example what it gives', () => {
  expect(FILES.length).toBeGreaterThan(60);
  expect(FILES.reduce((sum, { examples }) => sum + examples.length, 0)).toBeGreaterThan(150);
});

test.each(FILES)('what the examples of $file say is so', ({ own, examples }) => {
  const scope = { ...CORE, ...own, read };
  const check = (value: unknown, wanted: string, call: string) =>
    expect(JSON.stringify(value), call).toBe(wanted);
  for (const lines of examples) {
    const program = lines.map((line) => {
      const [, call = '', wanted] = CHECKED.exec(line) ?? [];
      return wanted === undefined
        ? line
        : `check(${call}, ${JSON.stringify(wanted)}, ${JSON.stringify(call)});`;
    });
    const run = new Function('check', ...Object.keys(scope), program.join('\n'));
    run(check, ...Object.values(scope));
  }
});
