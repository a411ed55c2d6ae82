/**
 * Tunes in ABC 2.1 as chart text: chord symbols over the notes, bars, repeats, endings and parts, with the notes
 * of the voice that has the chords as a melody. Parsing is abcjs's.
 */
import abcjs from 'abcjs';
import { parseChord } from '../../../chords/symbols';
import { CHART_LIMITS } from '../../../chart/syntax';
import { type Key, KEY_MODES, parseKey } from '../../../keys/keys';
import { at, modulo } from '../../../lists';
import type { Midi } from '../../../notes/pitch';
import { BEAT, type Beats } from '../../../time/units';
import type { Refusal } from '../../result';
import { chartText, type ReadBar } from '../bars';
import { type AbcKey, type Sign, type Tune, tuneSchema } from './schema';

/** A note of the melody: its bar among those written, and when it begins in it. */
export interface BarNote {
  readonly bar: number;
  readonly beat: Beats;
  readonly beats: Beats;
  readonly midi: Midi;
}

/** A tune of an ABC file as chart text, with its melody. */
export interface AbcTune {
  readonly title: string;
  readonly text: string;
  readonly melody: readonly BarNote[];
  readonly remarks: readonly string[];
}

type AbcResult = { readonly ok: true; readonly tunes: readonly AbcTune[] } | Refusal;

const MODES: Readonly<Record<string, string>> = {
  '': 'major',
  m: 'minor',
  dor: 'dorian',
  mix: 'mixolydian',
  lyd: 'lydian',
  phr: 'phrygian',
  loc: 'locrian',
};

/** The key that is named; null for none, and for a mode a chart does not have. */
function keyOf({ root = '', acc = '', mode = '' }: AbcKey): Key | null {
  const named = MODES[mode.toLowerCase().slice(0, 3)] ?? MODES[mode.toLowerCase()];
  if (!/^[A-G]$/u.test(root) || !KEY_MODES.some((one) => one === named)) return null;
  return parseKey(`${root}${acc} ${named ?? 'major'}`);
}

/** Half steps above C of the letters, from C up. */
const LETTERS = [0, 2, 4, 5, 7, 9, 11] as const;
const NAMES = 'CDEFGAB';
const ACCIDENTALS: Readonly<Record<string, number>> = {
  dblflat: -2,
  flat: -1,
  natural: 0,
  sharp: 1,
  dblsharp: 2,
};
/** Written C is the C of the middle. */
const MIDDLE = 60;

/** What a key's signature makes of each letter. */
const signatureOf = ({ accidentals = [] }: AbcKey): ReadonlyMap<number, number> =>
  new Map(
    accidentals.map(({ acc, note }) => [NAMES.indexOf(note.toUpperCase()), ACCIDENTALS[acc] ?? 0]),
  );

/** A whole note where a quarter is a beat. */
const WHOLE: Beats = 4 * BEAT;

/** The chord a symbol over the notes says; null for words and what is none. */
function chordOf(written: string): string | null {
  const [first = ''] = written
    .replace(/♯/gu, '#')
    .replace(/♭/gu, 'b')
    .split(/[\n(;]/u);
  const symbol = first.replace(/\s+/gu, '');
  if (/^n\.?c\.?$/iu.test(symbol)) return 'N.C.';
  return parseChord(symbol)?.symbol ?? null;
}

const endingsOf = (text: string): readonly number[] =>
  text
    .split(',')
    .flatMap((part) => {
      const [from = NaN, to = from] = part.split('-').map(Number);
      return Array.from({ length: Math.max(0, to - from + 1) }, (_, index) => from + index);
    })
    .filter((one) => one >= 1 && one <= CHART_LIMITS.repeats);

/** The signs of one voice of a staff, line after line, with the key each line begins in. */
function voiceOf({ lines }: Tune, staff: number, voice: number): readonly Sign[] {
  return lines.flatMap(({ staff: staves }) => {
    const found = staves?.[staff];
    if (!found) return [];
    const key = found.key ? [{ ...found.key, el_type: 'key' } as Sign] : [];
    return [...key, ...(found.voices[voice] ?? [])];
  });
}

const chordsIn = (signs: readonly Sign[]): number =>
  signs.reduce(
    (sum, { chord = [] }) =>
      sum + chord.filter(({ position }) => position === undefined || position === 'default').length,
    0,
  );

/** Every voice of a tune, the one with most chords first. */
function voicesOf(tune: Tune): readonly (readonly Sign[])[] {
  const staves = tune.lines.find(({ staff }) => staff !== undefined)?.staff ?? [];
  const voices = staves.flatMap(({ voices: own }, staff) =>
    own.map((_, voice) => voiceOf(tune, staff, voice)),
  );
  return voices.toSorted((a, b) => chordsIn(b) - chordsIn(a));
}

const emptyBar = (number: number): ReadBar => ({
  number: String(number),
  pickup: false,
  ticks: 0,
  chords: [],
  heading: null,
  key: null,
  opensRepeat: false,
  closesRepeat: null,
  endings: [],
  same: 0,
});

interface ReadTune {
  readonly bars: readonly ReadBar[];
  readonly melody: readonly BarNote[];
}

/** The bars of one voice, and its highest notes as a melody. */
function readBars(
  signs: readonly Sign[],
  full: number,
  unit: number,
  remarks: Set<string>,
): ReadTune {
  const bars: ReadBar[] = [];
  const melody: BarNote[] = [];
  let bar = { ...emptyBar(1), chords: [] as { at: number; text: string }[] };
  let now = 0;
  let signature: ReadonlyMap<number, number> = new Map();
  let inBar = new Map<number, number>();
  let tuplet = 1;
  let tied: BarNote | null = null;
  let begun = false;
  const beatsOf = (length: Beats): Beats => (length * unit) / 4;
  const close = () => {
    if (now > 0 || bar.chords.length > 0) {
      if (now > full + 1)
        remarks.add(
          `Bar ${bars.length + 1} is longer than its metre; what is too much is left out.`,
        );
      bars.push({ ...bar, ticks: full, pickup: bars.length === 0 && now < full });
      bar = { ...emptyBar(bars.length + 1), chords: [] };
    }
    now = 0;
    inBar = new Map();
  };
  for (const sign of signs) {
    switch (sign.el_type) {
      case 'part':
        if (now > 0) close();
        bar = { ...bar, heading: sign.title ?? null };
        break;
      case 'key': {
        const key = keyOf(sign);
        signature = signatureOf(sign);
        if (now === 0 && begun) bar = { ...bar, key };
        begun = true;
        break;
      }
      case 'meter': {
        const first = sign.value?.[0];
        if (first && bars.length > 0 && (first.num / first.den) * WHOLE !== full)
          remarks.add(
            `Bar ${bars.length + 1} changes to ${first.num}/${first.den}; a chart has one time signature.`,
          );
        break;
      }
      case 'bar': {
        close();
        const type = sign.type ?? '';
        const last = bars.at(-1);
        if ((type === 'bar_right_repeat' || type === 'bar_dbl_repeat') && last)
          bars[bars.length - 1] = { ...last, closesRepeat: 2 };
        if (type === 'bar_left_repeat' || type === 'bar_dbl_repeat')
          bar = { ...bar, opensRepeat: true };
        if (sign.startEnding !== undefined) bar = { ...bar, endings: endingsOf(sign.startEnding) };
        break;
      }
      case 'note': {
        if (sign.startTriplet !== undefined) tuplet = sign.tripletMultiplier ?? 1;
        for (const { name, position } of sign.chord ?? []) {
          if (position !== undefined && position !== 'default') continue;
          const text = chordOf(name);
          if (text === null)
            remarks.add(
              `“${name}” in bar ${bars.length + 1} is no chord Corvel reads; it was left out.`,
            );
          else bar.chords.push({ at: now, text });
        }
        const whole = sign.rest?.type === 'whole' || sign.rest?.type === 'multimeasure';
        const length = whole ? full : Math.round((sign.duration ?? 0) * tuplet * WHOLE);
        const top = (sign.pitches ?? []).toSorted((a, b) => b.pitch - a.pitch)[0];
        if (top && length > 0 && now < full) {
          const letter = modulo(top.pitch, 7);
          const accidental = top.accidental === undefined ? undefined : ACCIDENTALS[top.accidental];
          if (accidental !== undefined) inBar.set(top.pitch, accidental);
          const alter = inBar.get(top.pitch) ?? signature.get(letter) ?? 0;
          const octave = Math.floor(top.pitch / 7);
          const midi = MIDDLE + 12 * octave + at(LETTERS, letter) + alter;
          const beats = beatsOf(Math.min(length, full - now));
          const goesOn: boolean = tied !== null && tied.midi === midi && top.endTie !== undefined;
          const last: BarNote | undefined = melody.at(-1);
          if (goesOn && last) melody[melody.length - 1] = { ...last, beats: last.beats + beats };
          else melody.push({ bar: bars.length, beat: beatsOf(now), beats, midi });
          tied = top.startTie === undefined ? null : (melody.at(-1) ?? null);
        }
        now += length;
        if (sign.endTriplet !== undefined) tuplet = 1;
        break;
      }
    }
  }
  close();
  return { bars, melody };
}

/** Bars in the order in which the parts are to be played: `AABA`, `A2B`. */
function inOrder({ bars, melody }: ReadTune, order: string, remarks: Set<string>): ReadTune {
  const spelled = order
    .replace(/\s+/gu, '')
    .replace(/([A-Za-z])(\d)/gu, (_, letter: string, times: string) =>
      letter.repeat(Number(times)),
    );
  if (!/^[A-Za-z]{2,40}$/u.test(spelled)) return { bars, melody };
  const parts = new Map<string, number[]>();
  let name: string | null = null;
  for (const [index, { heading }] of bars.entries()) {
    if (heading !== null) name = heading;
    if (name === null) return { bars, melody };
    parts.set(name, [...(parts.get(name) ?? []), index]);
  }
  const played = [...spelled].map((letter) => parts.get(letter));
  if (played.some((one) => one === undefined)) {
    remarks.add(
      `The order of parts “${order}” names a part that is not there; the parts stand as written.`,
    );
    return { bars, melody };
  }
  const indices = played.flatMap((one) => one ?? []);
  return {
    bars: indices.map((index) => at(bars, index)),
    melody: indices.flatMap((index, place) =>
      melody.filter(({ bar }) => bar === index).map((note) => ({ ...note, bar: place })),
    ),
  };
}

const METRE = { num: 4, den: 4 } as const;

function readTune(tune: Tune): AbcTune | null {
  const remarks = new Set<string>();
  const first = tune.lines.find(({ staff }) => staff !== undefined)?.staff?.[0];
  if (!first) return null;
  const common = first.meter?.type === 'cut_time' ? { num: 2, den: 2 } : METRE;
  const metre = first.meter?.value?.[0] ?? common;
  const full = Math.round((metre.num / metre.den) * WHOLE);
  const [signs = [], ...others] = voicesOf(tune);
  const written = readBars(signs, full, metre.den, remarks);
  if (written.bars.length === 0) return null;
  const { partOrder } = tune.metaText;
  const { bars, melody } = partOrder === undefined ? written : inOrder(written, partOrder, remarks);
  const [opening] = bars;
  const pickup = opening && opening.pickup && opening.chords.length === 0 && bars.length > 1;
  if (pickup) remarks.add('The pick-up before the first bar was left out: it has no chord.');
  const kept = pickup ? bars.slice(1) : bars;
  if (others.length > 0)
    remarks.add(
      `The tune has ${others.length + 1} voices: chords and melody are those of the one with most chords.`,
    );
  if (chordsIn(signs) === 0)
    remarks.add('The tune has no chord symbols: its bars are silent until you write chords.');
  const key = first.key ? keyOf(first.key) : null;
  const { tempo, title = '', rhythm } = tune.metaText;
  const [counted] = tempo?.duration ?? [];
  const bpm =
    tempo?.bpm === undefined ? null : tempo.bpm * (counted === undefined ? 1 : counted * metre.den);
  const feel =
    rhythm !== undefined && /swing|shuffle|bossa|samba|waltz/iu.test(rhythm) ? rhythm : null;
  const shift = pickup ? 1 : 0;
  return {
    title,
    text: chartText(remarks, kept, {
      title,
      key,
      beats: metre.num,
      unit: metre.den,
      tempo: bpm,
      feel,
      idiom: null,
    }),
    melody: melody
      .filter(({ bar }) => bar >= shift)
      .map((note) => ({ ...note, bar: note.bar - shift })),
    remarks: [...remarks],
  };
}

/** Reads every tune of an ABC file; a tune that is too long or holds no bars is left out. */
export function readAbc(text: string): AbcResult {
  const tunes: AbcTune[] = [];
  for (const parsed of abcjs.parseOnly(text)) {
    const tune = tuneSchema.safeParse(parsed);
    const read = tune.success ? readTune(tune.data) : null;
    if (read) tunes.push(read);
  }
  if (tunes.length === 0) return { ok: false, message: 'This ABC file holds no tune with bars.' };
  return { ok: true, tunes };
}
