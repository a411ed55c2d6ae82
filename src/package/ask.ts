/** The command `corvel`: every question of the engine from a shell, answered in words or as JSON. */
import { QUESTIONS } from '$lib/engine/questions';

interface Answered {
  /** 0 answered, 1 refused, 2 asked wrongly. */
  readonly code: 0 | 1 | 2;
  readonly text: string;
}

const HELP = [
  'corvel QUESTION FILE [INDEX] [--FIELD=VALUE …] [--json]',
  '',
  'FILE is chart text (- reads what is piped in). INDEX is a chord as it is played, from 0.',
  'A field is one of the question’s, its value text or JSON: --zone={"low":5,"high":8}.',
  'Answers are words; with --json, JSON. Questions:',
  '',
  ...Object.entries(QUESTIONS).map(([name, { summary }]) => `  ${name.padEnd(14)} ${summary}`),
];

/** A value of a field: JSON where it is that, else the text itself. */
function valueOf(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return text;
  }
}

type Fields = Readonly<Record<string, unknown>>;

const isPlain = (value: unknown): boolean => typeof value !== 'object' || value === null;

/** A value as lines: `name: value`, lists numbered, plain lists in one line. */
export function wordsOf(value: unknown, indent = ''): string {
  if (isPlain(value)) return String(value);
  if (Array.isArray(value)) {
    if (value.length === 0) return 'none';
    if (value.every(isPlain)) return value.map(String).join(' ');
    return value
      .map(
        (one: unknown, index) =>
          `${indent}${index + 1}. ${wordsOf(one, `${indent}   `).trimStart()}`,
      )
      .join('\n');
  }
  return Object.entries(value as Fields)
    .map(([name, inside]) => {
      const plain = isPlain(inside) || (Array.isArray(inside) && inside.every(isPlain));
      const said = wordsOf(inside, `${indent}  `);
      return plain ? `${indent}${name}: ${said}` : `${indent}${name}:\n${said}`;
    })
    .join('\n');
}

/** Answers what the words of a command ask; `readFile` gives the bytes of a file by its name, `-` of what is piped in. */
export async function answerOf(
  words: readonly string[],
  readFile: (name: string) => Uint8Array,
): Promise<Answered> {
  const flags = words.filter((word) => word.startsWith('--'));
  const [name, file, index, ...others] = words.filter((word) => !word.startsWith('--'));
  const wrong = (text: string): Answered => ({ code: 2, text });
  if (name === undefined || flags.includes('--help')) return { code: 0, text: HELP.join('\n') };
  const question = QUESTIONS[name];
  if (!question || question.takes === 'sound')
    return wrong(`There is no question “${name}”. corvel --help lists them.`);
  const fields: Record<string, unknown> = {};
  for (const flag of flags) {
    const [, field, value] = /^--([\w-]+)(?:=(.*))?$/su.exec(flag) ?? [];
    if (field === undefined)
      return wrong(`“${flag}” is no field: write --zone={"low":5,"high":8}.`);
    if (field !== 'json') fields[field] = value === undefined ? true : valueOf(value);
  }
  if (others.length > 0)
    return wrong(`“${others.join(' ')}” is too much: write fields as --name=value.`);
  let whole: Uint8Array = new Uint8Array();
  if (file !== undefined) {
    try {
      const bytes = readFile(file);
      whole = bytes;
      fields['chart'] = new TextDecoder().decode(bytes);
    } catch {
      return wrong(`“${file}” cannot be read.`);
    }
  }
  if (index !== undefined) {
    if (!/^\d+$/u.test(index))
      return wrong(`“${index}” is no index of a chord: they count from 0.`);
    fields['index'] = Number(index);
  }
  const request = question.request.safeParse(question.takes === 'file' ? whole : fields);
  if (!request.success) {
    const [issue] = request.error.issues;
    return wrong(
      `${issue?.path.join('.') ?? ''}: ${issue?.message ?? 'wrong'}`.replace(/^: /u, ''),
    );
  }
  const result = await question.ask(request.data);
  if (!result.ok) return { code: 1, text: result.error.message };
  const json = flags.includes('--json');
  return { code: 0, text: json ? JSON.stringify(result.value, null, 2) : wordsOf(result.value) };
}
