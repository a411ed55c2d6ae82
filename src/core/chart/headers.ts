/** The header lines above the bars: `title:`, `key:`, `time:`, `tempo:`, `feel:`, `idiom:`. */
import { lookUp } from '../lists';
import { list } from '../words';
import { TEMPO_RANGE } from '../time/tempo';
import { parseKey } from '../keys/keys';
import { TIME_UNITS } from '../time/metre';
import { type ChartSource, IDIOMS } from './syntax';

type Headers = { -readonly [P in keyof Omit<ChartSource, 'sections'>]: ChartSource[P] };

/** A word and a colon at the start of a line; a bar line after the colon is a repeat sign instead. */
export const HEADER_PATTERN = /^\s*([A-Za-z]{3,})\s*:(?!\|)\s*(.*)$/u;

/** The sentence for a text that is no key. */
export const notAKey = (text: string): string =>
  `“${text}” is not a key: write it like Eb, F#m or D dorian.`;

const READERS: Readonly<Record<string, (headers: Headers, value: string) => string | null>> = {
  title: (headers, value) => {
    headers.title = value.slice(0, 200);
    return null;
  },
  feel: (headers, value) => {
    headers.feel = value === '' ? null : value.slice(0, 60);
    return null;
  },
  idiom: (headers, value) => {
    headers.idiom = IDIOMS.find((name) => name === value.toLowerCase()) ?? null;
    return value === '' || headers.idiom !== null
      ? null
      : `“${value}” is not an idiom: write ${list(IDIOMS, 'or')}.`;
  },
  key: (headers, value) => {
    headers.key = value === '' ? null : parseKey(value);
    return value !== '' && headers.key === null ? notAKey(value) : null;
  },
  time: (headers, value) => {
    const match = /^(\d{1,2})\s*\/\s*(\d{1,2})$/u.exec(value);
    const beats = Number(match?.[1]);
    const unit = Number(match?.[2]);
    if (!match || beats < 1 || beats > 16 || !TIME_UNITS.includes(unit)) {
      return `“${value}” is not a time signature: write it like 4/4, 3/4 or 6/8.`;
    }
    headers.time = { beats, unit };
    return null;
  },
  tempo: (headers, value) => {
    const tempo = Number(value.replace(/\s*bpm$/iu, ''));
    if (value === '' || !(tempo >= TEMPO_RANGE.low && tempo <= TEMPO_RANGE.high)) {
      return `A tempo is a number of beats a minute from ${TEMPO_RANGE.low} to ${TEMPO_RANGE.high}.`;
    }
    headers.tempo = tempo;
    return null;
  },
};

/** Sets one header; answers a sentence when name or value cannot be read. */
export function applyHeader(headers: Headers, name: string, value: string): string | null {
  const read = lookUp(READERS, name);
  if (!read) {
    const known = Object.keys(READERS).join(', ');
    return `“${name}:” is not a line Corvel knows above a chart; it knows ${known}.`;
  }
  return read(headers, value);
}
