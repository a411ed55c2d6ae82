/** What can be wrong with the data file, as kinds and in sentences. */

export type ProblemKind = 'busy' | 'full' | 'read-only' | 'damaged' | 'newer' | 'missing';

/** The data file does not do what was asked; nothing of it was kept. */
export class StoreProblem extends Error {
  override readonly name = 'StoreProblem';
  readonly kind: ProblemKind;

  constructor(kind: ProblemKind, reason: string) {
    super(reason);
    this.kind = kind;
  }
}

/** SQLite's result codes by what they mean for the player. */
const KINDS: readonly (readonly [RegExp, ProblemKind])[] = [
  [/^SQLITE_(?:BUSY|LOCKED)/u, 'busy'],
  [/^SQLITE_(?:FULL|IOERR|NOMEM)/u, 'full'],
  [/^SQLITE_(?:READONLY|CANTOPEN|PERM|AUTH)/u, 'read-only'],
  [/^SQLITE_(?:CORRUPT|NOTADB|FORMAT)/u, 'damaged'],
];

/** The code of an error of SQLite or of the file system; the driver hides some in its message. */
function codeOf(error: unknown): string {
  const { code = '', message = '' } = error as { code?: string; message?: string };
  if (code !== '') return code;
  return /Unable to open connection/u.test(message) ? 'SQLITE_CANTOPEN' : '';
}

/** What SQLite says of a damaged header under the code of any error. */
const DAMAGED = /unsupported file format|file is not a database|malformed/u;

const FILE_CODES: Readonly<Record<string, ProblemKind>> = {
  ENOSPC: 'full',
  EDQUOT: 'full',
  EROFS: 'read-only',
  EACCES: 'read-only',
  EPERM: 'read-only',
};

/** An error as a problem of the data file; null when it is something else. */
export function problemOf(error: unknown): StoreProblem | null {
  if (error instanceof StoreProblem) return error;
  if (!(error instanceof Error)) return null;
  const code = codeOf(error);
  const kind =
    KINDS.find(([pattern]) => pattern.test(code))?.[1] ??
    FILE_CODES[code] ??
    (code === 'SQLITE_ERROR' && DAMAGED.test(error.message) ? 'damaged' : undefined);
  return kind === undefined ? null : new StoreProblem(kind, `${code}: ${error.message}`);
}

/** What a page or a program is told when a change could not be kept. */
export const PROBLEM_WORDS: Readonly<Record<ProblemKind, string>> = {
  busy: 'Another program is using the data file. Nothing was lost; Corvel tries again.',
  full: 'The disk is full, so this was not kept. Make room; Corvel tries again.',
  'read-only': 'The data folder cannot be written to, so this was not kept.',
  damaged: 'The data file is damaged; open /recover in the browser.',
  newer: 'The data file was written by a newer Corvel; open /recover in the browser.',
  missing: 'The data file is missing; open /recover in the browser.',
};
