/** The examples of the package's public functions are run as they stand. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import * as corvel from './index';
import { answerOf, wordsOf } from './ask';

const SOURCE = join(import.meta.dirname, '..');
const files = [
  'package/index.ts',
  ...readdirSync(join(SOURCE, 'core'), { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
    .map((file) => join('core', file)),
].map((file) => readFileSync(join(SOURCE, file), 'utf8'));

/** The example over the declaration of a function; null where it has none. */
function exampleOf(name: string): string | null {
  const declared = new RegExp(
    `/\\*\\*((?:(?!\\*/)[^])*?)\\*/\\s*export (?:const|function) ${name}\\b`,
    'u',
  );
  for (const source of files) {
    const found = declared.exec(source)?.[1];
    if (found === undefined) continue;
    const [, example] = found.split('@example');
    return example?.replace(/^\s*\* ?/gmu, '').trim() ?? null;
  }
  return null;
}

const functions = Object.entries(corvel).filter(
  ([name, value]) => typeof value === 'function' && name !== 'CorvelError',
);

describe('every public function has an example that runs', () => {
  test.each(functions.map(([name]) => name))('%s', (name) => {
    const example = exampleOf(name);
    expect(example, name).not.toBeNull();
    const lines = (example ?? '').split('\n');
    const checked = lines.filter((line) => / \/\/ /u.test(line));
    expect(checked.length).toBeGreaterThan(0);
    const program = lines.map((line) => {
      const [code = '', wanted] = line.split(' // ');
      return wanted === undefined
        ? code
        : `check(${code.replace(/;\s*$/u, '')}, ${JSON.stringify(wanted)});`;
    });
    const check = (value: unknown, wanted: string) => expect(JSON.stringify(value)).toBe(wanted);
    // The program of the documentation, with the package in scope.
    const run = new Function(
      'corvel',
      'check',
      `const { ${Object.keys(corvel).join(', ')} } = corvel;\n${program.join('\n')}`,
    ) as (package_: typeof corvel, checking: typeof check) => void;
    run(corvel, check);
  });
});

test('the recipes of the README run as they stand', () => {
  const readme = readFileSync(join(SOURCE, '../packages/core/README.md'), 'utf8');
  const recipes = [...readme.matchAll(/```js\n([^]*?)```/gu)].map(([, code = '']) => code);
  expect(recipes).toHaveLength(5);
  for (const recipe of recipes) {
    const said: unknown[] = [];
    const code = recipe
      .replace(/import (\{[^}]*\}) from 'corvel-core';/gu, 'const $1 = corvel;')
      .replace(/import (\{[^}]*\}) from 'node:fs';/gu, 'const $1 = files;');
    const run = new Function('corvel', 'files', 'console', code) as (...given: unknown[]) => void;
    run(
      corvel,
      { writeFileSync: (...given: unknown[]) => said.push(...given) },
      { log: (...given: unknown[]) => said.push(...given) },
    );
    expect(said.length, recipe).toBeGreaterThan(0);
    expect(said).not.toContain(undefined);
  }
});

test('wrong input is an error in words, at its place', () => {
  expect(() => corvel.read('| Dm7 | Xm |')).toThrow(corvel.CorvelError);
  try {
    corvel.read('| Dm7 | Xm |');
  } catch (error) {
    expect(error).toMatchObject({ place: { line: 1, column: 9 } });
  }
  expect(() => corvel.options(corvel.read('| C |'), 5)).toThrow(/no chord 5/u);
  expect(() => corvel.zones('H')).toThrow(/no note/u);
});

describe('the command', () => {
  const files = new Map([
    ['tune.txt', '| Dm7 | G7 | Cmaj7 |'],
    ['tune.abc', 'X:1\nT:A\nM:4/4\nL:1/4\nK:C\n"C"c4|\n'],
  ]);
  const ask = (...words: string[]) =>
    answerOf(words, (name) => {
      const text = files.get(name);
      if (text === undefined) throw new Error('no such file');
      return new TextEncoder().encode(text);
    });

  test('asks a question of a chart, with an index and fields', async () => {
    const asked = await ask('options', 'tune.txt', '1', '--lenses=["mode"]', '--json');
    expect(asked.code).toBe(0);
    const answer = JSON.parse(asked.text) as { options: { lens: string }[] };
    expect(new Set(answer.options.map(({ lens }) => lens))).toEqual(new Set(['mode']));
    expect((await ask('exercise', 'tune.txt', '--kind=own', '--pattern=1 2 3 5')).text).toContain(
      'goal:',
    );
  });

  test('says what it can do, and what is wrong', async () => {
    expect((await ask()).text).toContain('options');
    expect((await ask('--help')).code).toBe(0);
    expect(await ask('sing', 'tune.txt')).toMatchObject({
      code: 2,
      text: expect.stringContaining('sing'),
    });
    expect(await ask('options', 'tune.txt', '9')).toMatchObject({ code: 1 });
    expect(await ask('options', 'gone.txt', '1')).toMatchObject({
      code: 2,
      text: expect.stringContaining('gone.txt'),
    });
    expect(await ask('options', 'tune.txt', 'x')).toMatchObject({ code: 2 });
    expect((await ask('open', 'tune.abc', '--json')).text).toContain('| C |');
  });

  test('words are lines that are read', () => {
    expect(
      wordsOf({ chord: 'Dm7', notes: ['D', 'F'], options: [{ rank: 1 }, { rank: 2 }], none: [] }),
    ).toBe('chord: Dm7\nnotes: D F\noptions:\n  1. rank: 1\n  2. rank: 2\nnone: none');
  });
});
