/**
 * Small changes of the code, each made in a copy and held against the unit tests: a weight, a boundary, a tie-break
 * that is changed by a hair is to fail one.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import ts from 'typescript';
import { seeded } from '$core/random';

/** A stretch of a file, and what stands there instead. */
interface Mutation {
  readonly file: string;
  readonly line: number;
  readonly from: number;
  readonly to: number;
  readonly was: string;
  readonly becomes: string;
}

const INSTEAD: Readonly<Record<string, string>> = {
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '===': '!==',
  '!==': '===',
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
  '%': '*',
  '&&': '||',
  '||': '&&',
};
const METHODS: Readonly<Record<string, string>> = {
  some: 'every',
  every: 'some',
  min: 'max',
  max: 'min',
  floor: 'ceil',
  ceil: 'floor',
  find: 'findLast',
  findLast: 'find',
  round: 'floor',
};

/** The number next to it: the next whole one, or a tenth more. */
const nextTo = (written: string): string => {
  const value = Number(written.replaceAll('_', ''));
  return Number.isInteger(value) ? String(value + 1) : String(Number((value * 1.1).toFixed(6)));
};

/** Every small change of a file. */
function mutationsOf(file: string, text: string): readonly Mutation[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Mutation[] = [];
  const add = (node: ts.Node, becomes: string) => {
    const from = node.getStart(source);
    const line = source.getLineAndCharacterOfPosition(from).line + 1;
    found.push({ file, line, from, to: node.end, was: text.slice(from, node.end), becomes });
  };
  const visit = (node: ts.Node): void => {
    // Types, names and messages do nothing that a test could see.
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node)) return;
    if (ts.isNumericLiteral(node)) add(node, nextTo(node.text));
    if (ts.isBinaryExpression(node)) {
      const instead = INSTEAD[node.operatorToken.getText(source)];
      const words = ts.isStringLiteralLike(node.left) || ts.isStringLiteralLike(node.right);
      if (instead !== undefined && !words) add(node.operatorToken, instead);
    }
    if (ts.isPropertyAccessExpression(node)) {
      const instead = METHODS[node.name.text];
      if (instead !== undefined && ts.isCallExpression(node.parent)) add(node.name, instead);
    }
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, node.operand.getText(source));
    if (ts.isConditionalExpression(node)) {
      const { condition, whenTrue, whenFalse } = node;
      const [yes, no] = [whenTrue.getText(source), whenFalse.getText(source)];
      if (yes !== no) add(node, `${condition.getText(source)} ? ${no} : ${yes}`);
    }
    if (ts.isIfStatement(node) && !node.elseStatement) add(node.expression, 'false');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Where the unit tests hold: the core, and all of the interface and the server that is no component. */
const isTested = (file: string): boolean =>
  /^src\/(?:core|lib)\/.+\/.*\.ts$/u.test(file) && !/\.(?:test|d|worker)\.ts$/u.test(file);

export interface MutationsWanted {
  readonly count: number;
  readonly seed: number;
  /** The folders they are made in, such as `src/core/keys`. */
  readonly where: readonly string[];
}

/** Changes drawn by chance, of as many rooms as there are: a large room has no more than a small one. */
function drawn(
  root: string,
  files: readonly string[],
  { count, seed, where }: MutationsWanted,
): readonly Mutation[] {
  const random = seeded(seed);
  const rooms = new Map<string, Mutation[]>();
  const wanted = (file: string) => where.some((folder) => file.startsWith(folder));
  for (const file of files.filter((one) => isTested(one) && wanted(one))) {
    const mutations = mutationsOf(file, readFileSync(join(root, file), 'utf8'));
    const room = dirname(file).split('/').slice(0, 3).join('/');
    rooms.set(room, [...(rooms.get(room) ?? []), ...mutations]);
  }
  const names = [...rooms.keys()].sort();
  const result: Mutation[] = [];
  const most = [...rooms.values()].reduce((sum, { length }) => sum + length, 0);
  for (let turn = 0; result.length < Math.min(count, most); turn++) {
    const room = rooms.get(names[turn % names.length] ?? '') ?? [];
    const [mutation] = room.splice(Math.floor(random() * room.length), 1);
    if (mutation) result.push(mutation);
  }
  return result;
}

/** How long tests may go on before the change counts as found, in milliseconds. */
const PATIENCE = 400_000;

export interface MutationsResult {
  readonly tried: number;
  readonly caught: number;
  readonly passed: readonly string[];
}

/** Makes some changes, each alone, and answers those that pass every unit test that reads the file. */
export function tryMutations(
  wanted: MutationsWanted,
  say: (what: string) => void,
): MutationsResult {
  const copy = mkdtempSync(join(tmpdir(), 'corvel-mutations-'));
  const listed = spawnSync('git', ['ls-files'], { encoding: 'utf8' });
  const files = listed.stdout.split('\n').filter((file) => file !== '');
  for (const file of files) cpSync(file, join(copy, file));
  const tests = files.filter((file) => /^src\/.*\.test\.ts$/u.test(file));
  symlinkSync(join(process.cwd(), 'node_modules'), join(copy, 'node_modules'));
  const run = (...args: readonly string[]) =>
    spawnSync(process.execPath, ['node_modules/vitest/vitest.mjs', ...args], {
      cwd: copy,
      stdio: 'ignore',
      timeout: PATIENCE,
    }).status === 0;
  const project = ['--project', 'unit', '--bail', '1', '--passWithNoTests'];
  spawnSync(process.execPath, ['node_modules/@sveltejs/kit/svelte-kit.js', 'sync'], { cwd: copy });
  const passed: string[] = [];
  try {
    const mutations = drawn(copy, files, wanted);
    for (const { file, line, from, to, was, becomes } of mutations) {
      const path = join(copy, file);
      const text = readFileSync(path, 'utf8');
      writeFileSync(path, text.slice(0, from) + becomes + text.slice(to));
      // Those beside it first: they are soon through, and find the most.
      const beside = tests.filter((test) => dirname(test) === dirname(file));
      const holds =
        (beside.length === 0 || run('run', ...project, ...beside)) &&
        run('related', '--run', ...project, file);
      writeFileSync(path, text);
      const what = `${file}:${line} ${was.replaceAll(/\s+/gu, ' ')} → ${becomes.replaceAll(/\s+/gu, ' ')}`;
      say(`${holds ? 'passed' : 'caught'} ${what}`);
      if (holds) passed.push(what);
    }
    return { tried: mutations.length, caught: mutations.length - passed.length, passed };
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}
