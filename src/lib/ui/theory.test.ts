import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { anchorOf } from './anchors';

const theory = readFileSync('docs/theory.md', 'utf8');
const parts = [...theory.matchAll(/^## (.+)$/gmu)].map(([, words = '']) => anchorOf(words));

test('every link to a rule leads to a heading, and every part of the links’ list is there', () => {
  const files = readdirSync('src/lib', { recursive: true, encoding: 'utf8' });
  const linked = files
    .filter((file) => file.endsWith('.svelte'))
    .flatMap((file) => [
      ...readFileSync(join('src/lib', file), 'utf8').matchAll(/<TheoryLink part="([^"]+)"/gu),
    ])
    .map(([, part = '']) => part);
  expect(linked.length).toBeGreaterThan(5);
  for (const part of linked) expect(parts).toContain(part);
});

test('links between the pages and from the README lead somewhere', () => {
  for (const [folder, file] of [
    ['.', 'README.md'],
    ...['manual.md', 'theory.md', 'serving.md'].map((name) => ['docs', name] as const),
  ] as const) {
    const text = readFileSync(join(folder, file), 'utf8');
    for (const [, target = ''] of text.matchAll(/\]\(([^)#:\s]+)/gu))
      expect([file, target, readFileSync(join(folder, target)).length > 0]).toEqual([
        file,
        target,
        true,
      ]);
  }
});
