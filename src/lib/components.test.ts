import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';

const FOLDER = new URL('..', import.meta.url).pathname;

const components = readdirSync(FOLDER, { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.svelte'))
  .map((name) => ({ name, source: readFileSync(join(FOLDER, name), 'utf8') }));

/** The names at the top level of an interface's or a pattern's body. */
function namesIn(body: string): readonly string[] {
  const top: string[] = [];
  let depth = 0;
  for (const char of body.replace(/\/\*[\s\S]*?\*\/|\/\/.*$/gmu, '').replaceAll('=>', '')) {
    if ('{([<'.includes(char)) depth += 1;
    if (depth === 0) top.push(char);
    if ('})]>'.includes(char)) depth -= 1;
  }
  return top
    .join('')
    .split(/[;,\n]/u)
    .flatMap((part) => /^\s*(?:readonly\s+)?(\.{3}\w+|['"]?[\w-]+['"]?)/u.exec(part)?.[1] ?? []);
}

describe('a component', () => {
  test('uses every prop that it declares', () => {
    let declared = 0;
    for (const { name, source } of components) {
      const props = /interface Props \{\n([\s\S]*?)\n {2}\}/u.exec(source)?.[1];
      const taken = /(?:let|const) \{([\s\S]*?)\}: Props = \$props\(\)/u.exec(source)?.[1];
      if (props === undefined || taken === undefined) continue;
      const used = namesIn(taken);
      if (used.some((one) => one.startsWith('...'))) continue;
      const unused = namesIn(props).filter((one) => !used.includes(one));
      expect([name, unused]).toEqual([name, []]);
      declared += namesIn(props).length;
    }
    expect(declared).toBeGreaterThan(300);
  });
});
