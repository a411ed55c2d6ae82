/**
 * Finding a lick: every place in charts where it is right once it is moved — over the same
 * changes, over the same chord, or over chords it sounds as well on, several of them read as one
 * where players do (a line of the IV over its ii–V).
 */
import type { Chart, PlayedChord } from '../chart/form';
import { type Chord, chordName } from '../chords/chords';
import { at, modulo } from '../lists';
import type { Neck } from '../neck/neck';
import { halfSteps, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { isAnticipated } from '../phrases/landing';
import { techniqueOf } from '../phrases/techniques';
import { spokenSize } from '../targets/sentences';
import { BEAT, type Beats } from '../time/units';
import { list } from '../words';
import { evidenceFor, strongBeats } from './heard';
import { standing } from './roles';
import { heardPitch, type LickNote } from './sounding';
import { simplified, type Stay, staysFrom } from './stays';
import { EVIDENCE } from './weights';

/** How a lick fits a place of a chart, the best first. */
export const MATCHES = ['same changes', 'same chord', 'same sound'] as const;
export type Match = (typeof MATCHES)[number];

interface Fit {
  /** The position of the chart among those searched. */
  readonly chart: number;
  /** The chord it starts on. */
  readonly index: number;
  /** How far it is moved, −5 to 6. */
  readonly semitones: number;
  readonly match: Match;
  /** How much of its time sounds on chord tones and tensions there, 0 to 1. */
  readonly share: number;
  readonly sentence: string;
}

const AHEAD: Beats = BEAT / 2;

/** A pitch of the lick with its time, and the chord of the lick it sounds over. */
interface Sung {
  readonly midi: Midi;
  readonly beats: Beats;
  readonly over: number;
  /** Whether it is bent to its pitch: the ear follows it there. */
  readonly bent: boolean;
}

interface Shape {
  /** The lick's own chords, from the one it starts on to the one it ends on. */
  readonly stays: readonly Stay[];
  /** When it ends. */
  readonly end: Beats;
  readonly sung: readonly Sung[];
  readonly time: Chart['source']['time'];
}

/** The chord a lick starts on: what its first note sounds over, or comes just ahead of. */
export function startOf(chart: Chart, notes: readonly LickNote[]): PlayedChord | null {
  const begins = Math.max(0, (notes[0]?.beat ?? 0) + AHEAD);
  return chart.chords.findLast(({ beat }) => beat <= begins) ?? chart.chords[0] ?? null;
}

/** What of a lick decides where it is right; null where it has no notes or no chords. */
function shapeOf(chart: Chart, neck: Neck, notes: readonly LickNote[]): Shape | null {
  const start = startOf(chart, notes);
  if (!start || notes.length === 0) return null;
  const end = Math.max(...notes.map(({ beat, beats }) => beat + beats));
  const all = staysFrom(chart, start.index);
  /** The chord of a note: the one that sounds, or the one it is held into. */
  const overOf = (note: LickNote): number => {
    const sounding = all.findLastIndex(({ beat }) => beat <= note.beat);
    const next = all[sounding + 1];
    const meeting = next && { ...next, beats: next.end - next.beat };
    const ahead = meeting && isAnticipated([], { ...note, midi: 0 }, meeting);
    return Math.max(0, ahead ? sounding + 1 : sounding);
  };
  const sung = notes.map((note): Sung => ({
    midi: heardPitch(neck, note),
    beats: note.beats,
    bent: techniqueOf(note.techniques, 'bend') !== undefined,
    over: overOf(note),
  }));
  const stays = all.slice(0, 1 + Math.max(...sung.map(({ over }) => over)));
  return { stays, end, sung, time: chart.source.time };
}

/** The move that is nearest to none. */
const nearest = (halfSteps: number): number => {
  const up = modulo(halfSteps, 12);
  return up > 6 ? up - 12 : up;
};

/** How much of a lick's time, moved, is at home over some chords, and whether it says them all. */
function soundsOver(shape: Shape, chords: readonly Chord[], semitones: number) {
  let home = 0;
  let tones = 0;
  let all = 0;
  const said = new Set<Chord>();
  for (const { midi, beats, over, bent } of shape.sung) {
    const chord = chords[Math.min(over, chords.length - 1)];
    if (!chord) continue;
    const is = standing(chord, midi + semitones, null);
    all += beats;
    if (is === 'chord tone') tones += beats;
    // A bend that leaves the chord counts against the place.
    if (bent && is !== 'chord tone') home -= beats;
    else if (is !== null) home += beats;
    if (evidenceFor(chord, midi + semitones) === EVIDENCE.guide) said.add(chord);
  }
  const says = chords.every((chord) => said.has(chord));
  if (all === 0) return { share: 0, tones: 0, says };
  return { share: Math.max(0, home / all), tones: tones / all, says };
}

/** The least of a lick's time that must be at home, and on chord tones, over other chords. */
const SOUNDS = { share: 0.9, tones: 0.6 } as const;

const word = (chord: Chord): string => chordName({ ...chord, bass: null });

/** Whether the lick's time fits the chart's from some chord on: changes together, the end inside. */
function inTime(own: readonly Stay[], there: readonly Stay[], end: Beats): boolean {
  const first = own[0];
  const begin = there[0];
  if (!first || !begin || there.length < own.length) return false;
  return own.every((stay, index) => {
    const other = at(there, index);
    const last = index === own.length - 1;
    const offset = (beat: Beats) => beat - first.beat;
    if (index > 0 && other.beat - begin.beat !== offset(stay.beat)) return false;
    return !last || other.end - begin.beat >= offset(end);
  });
}

function whereWords(bar: number, semitones: number): string {
  const moved =
    semitones === 0 ? 'as it is' : `${spokenSize(semitones)} ${semitones > 0 ? 'up' : 'down'}`;
  return `Bar ${bar}, ${moved}`;
}

function sentenceFor(
  match: Match,
  chords: readonly Chord[],
  bar: number,
  semitones: number,
): string {
  const names = list(chords.map(word));
  const where = whereWords(bar, semitones);
  if (match === 'same changes') return `${where}: the same changes, ${names}.`;
  if (match === 'same chord') return `${where}: the same chord, ${names}.`;
  return `${where}: it also works over ${names}.`;
}

/** A chord of a place, or the chords that are read as one. */
const underWords = ({ chord, under }: Stay): string => {
  if (!under) return word(chord);
  const four = chord.quality.family === 'minor' ? 'iv' : 'IV';
  return `${word(chord)}, the ${four}, over its ii–V, ${list(under.map(word))}`;
};

/** Chords a player takes for one another while the notes allow it: by their third and fifth. */
function familyOf({ quality }: Chord): string {
  const has = (size: number) => quality.degrees.some((tone) => halfSteps(tone) === size);
  const third = has(4) ? 'major' : has(3) ? 'minor' : 'neither';
  return `${third} ${has(6) && !has(7) ? 'flat' : has(8) && !has(7) ? 'sharp' : ''}`;
}

/** Whether each chord tone of a lick is at home over the chords of the same family, too. */
const allowedOver = (
  { stays, sung }: Shape,
  chords: readonly Chord[],
  semitones: number,
): boolean =>
  sung.every(({ midi, over }) => {
    const [own, there] = [stays[over]?.chord, chords[over]];
    if (!own || !there || standing(own, midi, null) !== 'chord tone') return true;
    return standing(there, midi + semitones, null) !== null;
  });

const ORDER: Readonly<Record<Match, number>> = {
  'same changes': 0,
  'same chord': 1,
  'same sound': 2,
};

/** Where a lick is over some chords: moved how far, how much of it is at home, whether they are its very own. */
interface Written {
  readonly chords: readonly Chord[];
  readonly semitones: number;
  readonly share: number;
  readonly same: boolean;
}

/** A lick over chords as it is written, or over such of the same family as far as its notes allow. */
function writtenOver(shape: Shape, there: readonly Stay[]): Written | null {
  const own = shape.stays;
  if (!inTime(own, there, shape.end)) return null;
  const chords = there.slice(0, own.length).map(({ chord }) => chord);
  const semitones = nearest(pitchClass(at(chords, 0).root) - pitchClass(at(own, 0).chord.root));
  const moved = (is: (chord: Chord, to: Chord) => boolean) =>
    own.every(({ chord }, which) => {
      const to = at(chords, which);
      const up = pitchClass(to.root) - pitchClass(chord.root) - semitones;
      return modulo(up, 12) === 0 && is(chord, to);
    });
  const same = moved((chord, to) => chord.quality.name === to.quality.name);
  const kin =
    !same &&
    moved((chord, to) => familyOf(chord) === familyOf(to)) &&
    allowedOver(shape, chords, semitones);
  if (!same && !kin) return null;
  const { share } = soundsOver(shape, chords, semitones);
  return same || share >= SOUNDS.share ? { chords, semitones, share, same } : null;
}

/** A place without its chart. */
type Found = Pick<Fit, 'semitones' | 'match' | 'share' | 'sentence'>;

/** What a lick does from a chord of a chart on: as it is written, over an easier reading, or by its sound. */
function foundAt(shape: Shape, all: readonly Stay[], bar: number): readonly Found[] {
  const own = shape.stays;
  const found = (match: Match, semitones: number, share: number, sentence: string): Found => ({
    semitones,
    match,
    share,
    sentence,
  });
  const plain = writtenOver(shape, all);
  if (plain) {
    const { chords, semitones: by, share, same } = plain;
    const match: Match = own.length > 1 ? 'same changes' : 'same chord';
    const written = list(own.map(({ chord }) => word(chord)));
    const sentence = same
      ? sentenceFor(match, chords, bar, by)
      : `${whereWords(bar, by)}: right over ${list(chords.map(word))} too, though written over ${written}.`;
    return [found(match, by, share, sentence)];
  }
  const there = all.slice(0, own.length);
  const chords = there.map(({ chord }) => chord);
  const others = inTime(own, there, shape.end)
    ? elsewhere(shape, chords).map(({ by, share }) =>
        found('same sound', by, share, sentenceFor('same sound', chords, bar, by)),
      )
    : [];
  const simple = simplified(all).slice(0, own.length);
  const under = simple.some((one) => one.under) ? writtenOver(shape, simple) : null;
  if (!under) return others;
  const { semitones: by, share } = under;
  const sentence = `${whereWords(bar, by)}: ${simple.map(underWords).join(', then ')}.`;
  return [
    found('same sound', by, share, sentence),
    ...others.filter(({ semitones }) => semitones !== by),
  ];
}

/** Every place where a lick fits, best first: by match, by what is at home, by how little it moves. */
export function fitLick(
  lick: { readonly chart: Chart; readonly notes: readonly LickNote[] },
  charts: readonly Chart[],
  neck: Neck,
): readonly Fit[] {
  const shape = shapeOf(lick.chart, neck, lick.notes);
  if (!shape) return [];
  const first = at(shape.stays, 0);
  const strong = strongBeats(shape.time);
  const fits = charts.flatMap((chart, position) => {
    const { beats, unit } = chart.source.time;
    if (beats !== shape.time.beats || unit !== shape.time.unit) return [];
    return chart.chords.flatMap(({ index, bar, beat }): readonly Fit[] => {
      // What was strong stays strong.
      if (strong(beat) !== strong(first.beat)) return [];
      // An easier reading makes one of two.
      const there = staysFrom(chart, index, 2 * shape.stays.length);
      return foundAt(shape, there, bar).map((one) => ({ chart: position, index, ...one }));
    });
  });
  return fits.toSorted(
    (a, b) =>
      ORDER[a.match] - ORDER[b.match] ||
      b.share - a.share ||
      Math.abs(a.semitones) - Math.abs(b.semitones) ||
      a.chart - b.chart ||
      a.index - b.index,
  );
}

/** The moves, best one only, by which a lick sounds as well over other chords. */
function elsewhere(
  shape: Shape,
  chords: readonly Chord[],
): readonly { readonly by: number; readonly share: number }[] {
  let best: { readonly by: number; readonly share: number; readonly tones: number } | null = null;
  for (let by = -5; by <= 6; by++) {
    const { share, tones, says } = soundsOver(shape, chords, by);
    // It must say each chord by one of its guide tones at the least.
    if (!says || share < SOUNDS.share || tones < SOUNDS.tones) continue;
    const better =
      best === null ||
      tones > best.tones ||
      (tones === best.tones && Math.abs(by) < Math.abs(best.by));
    if (better) best = { by, share, tones };
  }
  return best ? [{ by: best.by, share: best.share }] : [];
}
