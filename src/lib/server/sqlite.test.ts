import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PROBLEM_WORDS, problemOf, StoreProblem } from './problems';
import { type Connection, connect } from './sqlite';
import { decode } from './texts';

let folder: string;
let file: string;
let connection: Connection;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-sqlite-'));
  file = join(folder, 'test.sqlite');
  connection = connect(file);
  connection.exec('create table word (text text)');
});

afterEach(() => {
  connection.close();
  rmSync(folder, { recursive: true });
});

const run = (sql: string, parameters: readonly unknown[] = []) =>
  connection.prepare(sql).run(parameters);
const add = (text: string) => run('insert into word values (?)', [text]);
const words = (): readonly unknown[] =>
  connection.all('select text from word').map(({ text }) => text);

/** What another connection finds: only what was committed. */
function committed(): number {
  const other = new Database(file);
  const row = other.prepare('select count(*) as words from word').get() as { words: number };
  other.close();
  return row.words;
}

describe('a connection', () => {
  test('goes on after an error as if it were new', () => {
    expect(() => run('insert into nowhere values (1)')).toThrow();
    add('one');
    expect(words()).toEqual(['one']);
    expect(committed()).toBe(1);
  });

  test('keeps nothing of a transaction in which something failed', () => {
    run('begin');
    add('half');
    expect(() => run('insert into nowhere values (1)')).toThrow();
    // Nothing more may be said in it, or it would be kept by itself.
    expect(() => add('alone')).toThrow('already failed');
    expect(() => run('commit')).toThrow('already failed');
    run('rollback');
    expect(committed()).toBe(0);
    run('begin');
    add('whole');
    run('commit');
    expect(committed()).toBe(1);
  });

  test('is busy at the beginning of a transaction, and every later one is committed', () => {
    const other = new Database(file);
    other.exec('begin immediate');
    expect(() => run('begin')).toThrow(expect.objectContaining({ kind: 'busy' }) as Error);
    expect(() => add('alone')).toThrow(expect.objectContaining({ kind: 'busy' }) as Error);
    other.exec('commit');
    other.close();
    for (let count = 1; count <= 3; count++) {
      run('begin');
      add('one');
      run('commit');
      expect(committed()).toBe(count);
    }
  });

  test('opened to be read refuses writes in the words asked for', () => {
    add('one');
    const reading = connect(file, { refuseWrites: 'full' });
    expect(() => reading.prepare('insert into word values (?)').run(['two'])).toThrow(
      expect.objectContaining({ kind: 'full' }) as Error,
    );
    expect(reading.all('select text from word')).toHaveLength(1);
    reading.close();
  });
});

describe('problems', () => {
  const withCode = (code: string) => Object.assign(new Error('said'), { code });

  test.each([
    ['SQLITE_BUSY', 'busy'],
    ['SQLITE_BUSY_SNAPSHOT', 'busy'],
    ['SQLITE_FULL', 'full'],
    ['SQLITE_IOERR_WRITE', 'full'],
    ['ENOSPC', 'full'],
    ['SQLITE_READONLY', 'read-only'],
    ['SQLITE_CANTOPEN', 'read-only'],
    ['EROFS', 'read-only'],
    ['EACCES', 'read-only'],
    ['SQLITE_CORRUPT', 'damaged'],
    ['SQLITE_NOTADB', 'damaged'],
  ] as const)('%s is %s, with a sentence of its own', (code, kind) => {
    expect(problemOf(withCode(code))?.kind).toBe(kind);
    expect(PROBLEM_WORDS[kind]).toMatch(/^[A-Z].*\.$/u);
  });

  test('a header that SQLite does not know is damage, under whatever code it says so', () => {
    const said = Object.assign(new Error('unsupported file format'), { code: 'SQLITE_ERROR' });
    expect(problemOf(said)?.kind).toBe('damaged');
  });

  test('what is a fault of the program is none', () => {
    expect(problemOf(withCode('SQLITE_ERROR'))).toBeNull();
    expect(problemOf(new TypeError('x'))).toBeNull();
    expect(problemOf('busy')).toBeNull();
    const known = new StoreProblem('newer', 'x');
    expect(problemOf(known)).toBe(known);
  });
});

test('bytes are text, or what can be saved of them', () => {
  const bytes = (...values: number[]) => Uint8Array.from(values).buffer;
  expect(decode(null)).toBeNull();
  expect(decode(bytes(0xe2, 0x99, 0xad))).toEqual({ text: '♭', damaged: false });
  expect(decode(bytes(0x43, 0xff, 0x37))).toEqual({ text: 'C\ufffd7', damaged: true });
});
