/**
 * Chords worked out from the notes of a Standard MIDI File, bar by bar: a guess, and named as one. Each half bar is
 * held against every chord as a template of its tones (after Fujishima, "Realtime chord recognition of musical
 * sound", 1999), with the bass counted for its root.
 */
import midi from '@tonejs/midi';
import { chordName } from '../../../chords/chords';
import { quality } from '../../../chords/symbols';
import { CHART_LIMITS } from '../../../chart/syntax';
import { at, modulo, range } from '../../../lists';
import { halfSteps, type Note } from '../../../notes/notes';
import { simplestPitch } from '../../../notes/spelling';
import { NOTE_LIMIT, refused, type Refusal } from '../../result';
import { wordsOf } from '../../midi';
import { chartText, type ReadBar } from '../bars';

type GuessResult =
  { readonly ok: true; readonly text: string; readonly remarks: readonly string[] } | Refusal;

const PERCUSSION = 9;

/** Chords that are looked for, the plain ones first: of two as likely the first is meant. */
const QUALITIES = [
  '',
  'm',
  '7',
  'm7',
  'maj7',
  '6',
  'm6',
  'sus4',
  '7sus4',
  'm7b5',
  'dim7',
  'dim',
  'aug',
].map(quality);

/** What speaks for a chord, in hundredths of what sounds: whole numbers, so that what is as likely is equal. */
const WEIGHTS = {
  inside: 100,
  /** A tone that is not the chord's. */
  foreign: 100,
  /** A tone of the chord that does not sound: root, third, another. */
  missing: [25, 20, 12],
  /** The bass is its root. */
  bass: 20,
  /** Each tone over three. */
  rich: 5,
  /** Two chords in a bar, where one would do. */
  split: 12,
} as const;
/** A share under which a tone does not count as sounding. */
const SOUNDS = 0.1;
/** What passes, shorter than half of the stretch, counts half. */
const PASSING = 0.5;

interface Struck {
  readonly pitch: number;
  readonly from: number;
  readonly to: number;
}

interface Guess {
  readonly symbol: string | null;
  /** In hundredths. */
  readonly score: number;
}

/** The chord that says best what sounds between two moments; null where nothing does. */
function guess(notes: readonly Struck[], from: number, to: number): Guess {
  const shares = new Float64Array(12);
  let bass: Struck | null = null;
  let all = 0;
  for (const note of notes) {
    const length = Math.min(note.to, to) - Math.max(note.from, from);
    if (length <= 0) continue;
    const pitch = modulo(note.pitch, 12);
    const counted = length < (to - from) / 2 - 1 ? PASSING * length : length;
    shares[pitch] = (shares[pitch] ?? 0) + counted;
    all += counted;
    if (length > (to - from) / 8 && (bass === null || note.pitch < bass.pitch)) bass = note;
  }
  if (all === 0) return { symbol: null, score: 0 };
  const sounding = (pitch: number) => shares[modulo(pitch, 12)] ?? 0;
  let best: Guess = { symbol: null, score: -Infinity };
  for (const root of range(0, 12))
    for (const kind of QUALITIES) {
      const tones = kind.degrees.map((degree) => root + halfSteps(degree));
      const inside = tones.reduce((sum, tone) => sum + sounding(tone), 0);
      const missing = tones.reduce(
        (sum, tone, index) =>
          sum + (sounding(tone) < SOUNDS * all ? at(WEIGHTS.missing, Math.min(index, 2)) : 0),
        0,
      );
      const score =
        WEIGHTS.inside * inside -
        WEIGHTS.foreign * (all - inside) -
        all *
          (missing +
            WEIGHTS.rich * Math.max(0, tones.length - 3) -
            (bass !== null && modulo(bass.pitch, 12) === root ? WEIGHTS.bass : 0));
      if (score > best.score) {
        const named: Note = simplestPitch(root);
        const chord = { symbol: '', root: named, quality: kind, bass: null };
        best = { symbol: chordName(chord), score };
      }
    }
  return { ...best, score: best.score / all };
}

/** The chart that is guessed from a MIDI file's notes. */
export function readMidiChart(bytes: Uint8Array): GuessResult {
  let file: InstanceType<typeof midi.Midi>;
  try {
    file = new midi.Midi(bytes);
  } catch {
    return refused('This MIDI file is damaged.');
  }
  const notes = file.tracks
    .filter(({ channel }) => channel !== PERCUSSION)
    .flatMap((track) =>
      track.notes.map(({ midi: pitch, ticks, durationTicks }): Struck => ({
        pitch,
        from: ticks,
        to: ticks + durationTicks,
      })),
    )
    .sort((a, b) => a.from - b.from);
  if (notes.length === 0) return refused('This MIDI file holds no notes to work chords out from.');
  if (notes.length > NOTE_LIMIT) return refused('This MIDI file holds too many notes.');
  const [beats = 4, unit = 4] = file.header.timeSignatures[0]?.timeSignature ?? [];
  const ticks = (file.header.ppq * 4 * beats) / unit;
  const end = notes.reduce((last, { to }) => Math.max(last, to), 0);
  const count = Math.max(1, Math.ceil(end / ticks - 0.05));
  if (count > CHART_LIMITS.bars) return refused(`A chart holds at most ${CHART_LIMITS.bars} bars.`);
  const parts = beats % 2 === 0 ? 2 : 1;
  let first = 0;
  const bars = range(0, count).map((index): ReadBar => {
    const from = index * ticks;
    while (first < notes.length && at(notes, first).to <= from - 4 * ticks) first += 1;
    const near = notes.slice(first).filter((note) => note.to > from && note.from < from + ticks);
    const whole = guess(near, from, from + ticks);
    const halves = range(0, parts).map((half) =>
      guess(near, from + (half * ticks) / parts, from + ((half + 1) * ticks) / parts),
    );
    const mean = halves.reduce((sum, { score }) => sum + score, 0) / halves.length;
    const two = parts > 1 && halves.every(({ symbol }) => symbol !== null);
    const split = two && mean > whole.score + WEIGHTS.split;
    const chords = (split ? halves : [whole]).flatMap(({ symbol }, half) =>
      symbol === null ? [] : [{ at: (half * ticks) / parts, text: symbol }],
    );
    return {
      number: String(index + 1),
      pickup: false,
      ticks,
      chords,
      heading: null,
      key: null,
      opensRepeat: false,
      closesRepeat: null,
      endings: [],
      same: 0,
    };
  });
  const remarks = new Set([
    'The chords are a guess, worked out from the notes of the file: listen to it and correct them.',
  ]);
  const tempo = file.header.tempos[0]?.bpm;
  const text = chartText(remarks, bars, {
    title: wordsOf(file.name).trim() || null,
    key: null,
    beats,
    unit,
    feel: null,
    idiom: null,
    tempo: tempo === undefined ? null : (tempo * unit) / 4,
  });
  return { ok: true, text, remarks: [...remarks] };
}
