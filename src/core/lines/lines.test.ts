import { describe, expect, test } from 'vitest';
import { chordNotes, sameChord } from '../chords/chords';
import { degreeOver, weightOver } from '../chords/over';
import { makeExercise } from '../exercises/exercises';
import { collection } from '../collections/collections';
import { collectionMaterial } from '../lenses/material';
import { landingsOf } from '../listening/landings';
import { at, range } from '../lists';
import { reachOf } from '../neck/hand';
import { inZone, pitchAt, STANDARD_NECK as NECK } from '../neck/neck';
import { note, pitchClass } from '../notes/notes';
import { fallsBackward } from '../phrases/backward';
import { meetingOf, ON_TIME } from '../phrases/landing';
import type { PlayedNote } from '../phrases/passage';
import { techniqueOf } from '../phrases/techniques';
import { SUBDIVISIONS } from '../time/subdivision';
import { motifOf } from './motif';
import { stretchesOf } from './onsets';
import { FIGURES, soundedPitch } from './portrait';
import { isStrong, lineMetre } from './rhythm';
import { spansOf } from './spans';
import { LINE_STYLES, type LineStyle, STYLE_ROWS } from './styles';
import { pairs, some } from '$tests/laws';
import { linesOf, meansOf, settingOf } from '$tests/lines';
import { BEAT, inBeats } from '../time/units';

const FORMS = {
  'ii-V-I round the keys':
    'key: C\n| Dm7 | G7 | Cmaj7 | % | Gm7 | C7 | Fmaj7 | % | Fm7 | Bb7 | Ebmaj7 | % | Ebm7 | Ab7 | Dbmaj7 | G7 |',
  'a minor form': 'key: Cm\n| Cm7 | Fm7 | Dm7b5 | G7b9 | Cm7 | Abmaj7 | Dm7b5 G7b9 | Cm6 |',
  'two chords a bar':
    'key: Bb\n| Bbmaj7 G7 | Cm7 F7 | Dm7 G7 | Cm7 F7 | Fm7 Bb7 | Ebmaj7 Ebm6 | Dm7 G7 | Cm7 F7 |',
  'a waltz': 'key: F\ntime: 3/4\n| Fmaj7 | Dm7 | Gm7 | C7 | Am7 | Dm7 | Gm7 | C7 |',
  'a vamp': 'key: D dorian\n| Dm7 | % | % | % | % | % | % | % | Ebm7 | % | % | % | % | % | % | % |',
  'plain triads': 'key: G\n| G | D/F# | Em7 | C | G | D | C | % |',
} as const;
const BLUES = 'key: A\n| A7 | D7 | A7 | % | D7 | % | A7 | % | E7 | D7 | A7 | E7 |';
const SEEDS = range(1, 25);

function setting(text: string) {
  const { chart, request } = settingOf(text, 0);
  return { chart, zones: request.zones, request };
}

const sounded = (note: PlayedNote): number => soundedPitch(NECK, note);

describe('landings', () => {
  test('played as it is written, a line lands on all it aims at, which is where the plan aims', () => {
    let aimed = 0;
    for (const [text, subdivision, seed] of some(
      [...Object.values(FORMS), BLUES].flatMap((form) =>
        SUBDIVISIONS.flatMap((one) => SEEDS.slice(0, 6).map((own) => [form, one, own] as const)),
      ),
      36,
    )) {
      const { chart, zones, request } = setting(text);
      for (const kind of ['line', 'call-and-response'] as const) {
        const zone = at(zones, seed % zones.length);
        const asked = { ...request, subdivision, seed, zone };
        const { targets, passage } = makeExercise({ ...asked, kind });
        const route = makeExercise({ ...asked, kind: 'targets' }).passage.notes;
        const heard = passage.notes.map((note) => ({
          ...note,
          midi: pitchAt(NECK, note),
          cents: 0,
        }));
        const { landed } = landingsOf(chart, targets, heard);
        expect(landed).toBe(targets.length);
        aimed += targets.length;
        for (const { index, string, fret } of targets)
          expect(route.find(({ chord }) => chord === index)).toMatchObject({ string, fret });
      }
    }
    expect(aimed).toBeGreaterThan(150);
  });
});

const inEighths = (style: LineStyle) =>
  linesOf(style, 16).filter(({ request }) => request.subdivision === 'eighths');

describe('lines sound like somebody playing', () => {
  test.each(LINE_STYLES)('%s measures what its solos do', (style) => {
    const lines = linesOf(style, 16);
    const means = meansOf(lines);
    for (const [name, [least, most]] of Object.entries(FIGURES[style])) {
      expect(means[name], name).toBeGreaterThanOrEqual(least);
      expect(means[name], name).toBeLessThanOrEqual(most);
    }
    expect(means['late peaks']).toBeGreaterThan(2 / 3);
    expect(means['held clashes']).toBe(0);
    expect(means['rests']).toBeGreaterThan(0.12);
    for (const { exercise, chart } of lines) {
      const { notes } = exercise.passage;
      const last = at(notes, notes.length - 1);
      const { chord } = at(chart.chords, last.chord ?? 0);
      expect(weightOver(chord, degreeOver(chord, last.note))).not.toBe('colour');
      expect(last.beats).toBeGreaterThanOrEqual(BEAT);
    }
  });

  test('no chord is met on one pitch by more than six seeds of ten', () => {
    for (const [text, zone] of some(pairs([...Object.values(FORMS), BLUES], range(0, 5)), 4)) {
      const { chart, request } = settingOf(text, zone);
      const spans = spansOf(chart, request.materials, request.intents);
      const lines = range(1, 11).map((seed) =>
        makeExercise({ ...request, seed }).passage.notes.map((one) => ({
          ...one,
          midi: pitchAt(NECK, one),
        })),
      );
      for (const { first } of stretchesOf(spans)) {
        const met = lines.map((notes) => {
          const found = meetingOf(notes, at(spans, first), ON_TIME);
          return found ? at(notes, found.by).midi : null;
        });
        for (const midi of met) {
          const same = met.filter((other) => midi !== null && other === midi).length;
          expect(same, `${text}, zone ${zone}, chord ${first}`).toBeLessThanOrEqual(6);
        }
      }
    }
  });

  test('an idea that is kept keeps its phrases while the notes change', () => {
    const { request } = settingOf(FORMS['a minor form'], 1);
    const [one, other] = [3, 4].map((seed) => makeExercise({ ...request, seed, idea: 3 }));
    expect(one?.line?.plan).toEqual(other?.line?.plan);
    expect(one?.passage.notes).not.toEqual(other?.passage.notes);
  });

  test('a target the player has set is aimed at by every seed', () => {
    const { chart, request } = settingOf(FORMS['ii-V-I round the keys'], 1);
    const { targets } = makeExercise({ ...request, kind: 'line', seed: 1 });
    const free = at(targets, 0);
    const pins = { [String(free.index)]: { string: free.string, fret: free.fret } };
    for (const seed of range(1, 11)) {
      const line = makeExercise({ ...request, pins, seed });
      const { beat } = at(chart.chords, free.index);
      const sounds = line.passage.notes.some((one) => Math.abs(one.beat - beat) < BEAT);
      if (sounds) expect(line.targets.map(({ index }) => index)).toContain(free.index);
    }
  });

  test('chromatic notes pass: an eighth at most, to a half step away, off the pulse or into a target', () => {
    for (const { exercise, request, chart } of linesOf('bop', 16)) {
      const { notes } = exercise.passage;
      const metre = lineMetre(chart.source.time, request.subdivision);
      for (const [place, one] of notes.entries()) {
        const { mask } = at(request.materials, one.chord ?? 0);
        const inside = (mask & (1 << (sounded(one) % 12))) !== 0;
        if (inside || one.part === 'target') continue;
        const next = at(notes, place + 1);
        expect(one.beats).toBeLessThanOrEqual(BEAT / 2);
        expect(Math.abs(sounded(next) - sounded(one))).toBe(1);
        expect(isStrong(one.beat, metre) && next.part !== 'target').toBe(false);
      }
    }
  });

  test('what rings over a change is of the chord that comes, or of what is played over it', () => {
    let rung = 0;
    for (const style of LINE_STYLES) {
      for (const { exercise, request, chart } of linesOf(style, 16)) {
        for (const one of exercise.passage.notes) {
          const own = one.chord ?? 0;
          for (const { index, beat, chord } of chart.chords.slice(own + 1)) {
            if (beat >= one.beat + one.beats) break;
            rung += 1;
            const inside = pitchClass(one.note);
            const tones = chordNotes(chord).map(pitchClass);
            const mask = at(request.materials, index).mask & (1 << inside);
            const where = `${style}, ${chord.symbol} at ${inBeats(beat)}`;
            expect(mask !== 0 || tones.includes(inside), where).toBe(true);
          }
        }
      }
    }
    expect(rung).toBeGreaterThan(20);
  });

  test('a leap of a fifth and more turns back', () => {
    let leaps = 0;
    let onward = 0;
    for (const style of LINE_STYLES) {
      for (const { exercise } of linesOf(style, 16)) {
        const { notes } = exercise.passage;
        const pitches = notes.map(sounded);
        for (const place of range(1, notes.length - 1)) {
          const before = at(notes, place - 1);
          const move = at(pitches, place) - at(pitches, place - 1);
          const apart = at(notes, place).beat - before.beat - before.beats >= BEAT / 2;
          if (apart || Math.abs(move) < 7) continue;
          leaps += 1;
          const next = at(pitches, place + 1) - at(pitches, place);
          if (Math.sign(next) === Math.sign(move)) onward += 1;
        }
      }
    }
    expect(leaps).toBeGreaterThan(60);
    expect(onward / leaps).toBeLessThan(0.2);
  });

  test('a triplet among eighths is whole', () => {
    for (const style of LINE_STYLES) {
      for (const { exercise } of inEighths(style)) {
        const beats = exercise.passage.notes.map(({ beat }) => beat);
        for (const beat of beats) {
          // A ballad is doubled now and then.
          const parts = STYLE_ROWS[style].double === undefined ? 2 : 4;
          if (beat % (BEAT / parts) === 0) continue;
          const start = beat - (beat % BEAT);
          const whole = [0, 1, 2].map((third) => start + (third * BEAT) / 3);
          expect(beats, `${style} ${inBeats(beat)}`).toEqual(expect.arrayContaining(whole));
        }
      }
    }
  });

  test('a ballad goes into double time now and then, a bar at the most, and no other style does', () => {
    for (const style of LINE_STYLES) {
      const lines = inEighths(style);
      const doubled = lines.flatMap(({ exercise, chart }) => {
        const quarters = chart.source.time.unit === 4;
        const beats = exercise.passage.notes.map(({ beat }) => beat);
        const fast = beats.filter((beat) => beat % (BEAT / 2) === BEAT / 4);
        return quarters && fast.length > 0 ? [fast] : [];
      });
      if (STYLE_ROWS[style].double === undefined) expect(doubled, style).toEqual([]);
      else {
        expect(doubled.length).toBeGreaterThan(1);
        expect(doubled.length).toBeLessThan(lines.length);
        for (const fast of doubled) expect(fast.length).toBeLessThan(24);
      }
    }
  });

  test('a hand plays them: five frets within a beat, no string skipped in a hurry', () => {
    let skips = 0;
    let moves = 0;
    for (const style of LINE_STYLES) {
      for (const { exercise } of linesOf(style, 4)) {
        const { notes } = exercise.passage;
        for (const [place, one] of notes.entries()) {
          for (const other of notes.slice(place + 1, place + 6)) {
            const open = one.fret === 0 || other.fret === 0;
            if (other.beat - one.beat >= BEAT || open) continue;
            expect(Math.abs(one.fret - other.fret)).toBeLessThanOrEqual(5);
          }
          const next = notes[place + 1];
          if (!next) continue;
          moves += 1;
          const fast = next.beat - one.beat < BEAT / 2;
          if (fast && Math.abs(next.string - one.string) > 1) skips += 1;
        }
      }
    }
    expect(skips / moves).toBeLessThan(0.01);
  });

  test('never two notes at once, never out of the hand’s reach, never into a bar without a chord', () => {
    const text = 'key: C\n| Dm7 | G7 | N.C. | Cmaj7 / N.C. A7 |';
    const { chart, request } = setting(text);
    for (const [subdivision, seed] of some(pairs(SUBDIVISIONS, SEEDS), 12)) {
      const { notes } = makeExercise({ ...request, subdivision, seed }).passage;
      expect(notes.length).toBeGreaterThan(4);
      for (const [index, { beat, beats, fret, chord }] of notes.entries()) {
        const next = notes[index + 1];
        const over = at(chart.chords, chord ?? -1);
        expect(beats).toBeGreaterThan(0);
        expect([beat, beats].every(Number.isInteger)).toBe(true);
        expect(beat + beats).toBeLessThanOrEqual(next?.beat ?? Infinity);
        expect(inZone(reachOf(NECK, request.zone), fret)).toBe(true);
        const following = chart.chords.find((one) => one.beat === over.beat + over.beats);
        if (!following) expect(beat + beats).toBeLessThanOrEqual(over.beat + over.beats);
      }
    }
  });
});

describe('hands in a blues', () => {
  test('bend and slide at least twice a chorus, and only as a hand can', () => {
    const { zones, request } = setting(BLUES);
    for (const [zone, seed] of some(pairs(zones, SEEDS), 12)) {
      const { notes } = makeExercise({ ...request, zone, seed }).passage;
      let gestures = 0;
      for (const [index, note] of notes.entries()) {
        const bend = techniqueOf(note.techniques, 'bend');
        const slide = techniqueOf(note.techniques, 'slide');
        if (bend ?? slide) gestures += 1;
        if (bend) {
          expect(note.string).toBeLessThanOrEqual(3);
          expect(note.fret).toBeGreaterThan(2);
          expect(note.beats).toBeGreaterThanOrEqual(BEAT / 2);
        }
        if (slide) expect(slide.from).toBeGreaterThan(0);
        const slur = note.techniques.find(
          ({ kind }) => kind === 'hammer-on' || kind === 'pull-off',
        );
        if (!slur) continue;
        const before = at(notes, index - 1);
        expect(before.string).toBe(note.string);
        expect(Math.sign(note.fret - before.fret)).toBe(slur.kind === 'hammer-on' ? 1 : -1);
      }
      expect(gestures).toBeGreaterThanOrEqual(2);
    }
  });
});

describe('over the dominants of a blues', () => {
  test('no third falls to the minor third', () => {
    const { chart, zones, request } = setting(BLUES);
    const materials = chart.chords.map(() =>
      collectionMaterial(collection(note('A'), 'blended blues')),
    );
    for (const [zone, seed] of some(pairs(zones, SEEDS), 12)) {
      const { notes } = makeExercise({ ...request, zone, seed, materials }).passage;
      for (const [index, one] of notes.slice(1).entries()) {
        const before = at(notes, index);
        const { chord } = at(chart.chords, one.chord ?? 0);
        const same = sameChord(chord, at(chart.chords, before.chord ?? 0).chord);
        const falls = same && fallsBackward(chord, sounded(before), sounded(one));
        expect(falls, `${JSON.stringify(zone)}, seed ${seed}, beat ${inBeats(one.beat)}`).toBe(
          false,
        );
      }
    }
  });
});

describe('two sounds on one chord', () => {
  test('the second is played from its beat on, and nothing else there', () => {
    const { chart, zones, request } = setting('key: C\n| Dm7 | G7 | Cmaj7 | % |');
    const second = collectionMaterial(collection(note('G'), 'altered'));
    const later = chart.chords.map((_, index) =>
      index === 1 ? { material: second, after: 2 * BEAT } : null,
    );
    const altered = new Set(second.notes.map(pitchClass));
    const own = new Set(at(request.materials, 1).notes.map(pitchClass));
    let heard = 0;
    for (const [zone, seed] of some(pairs(zones, SEEDS), 12)) {
      const { notes } = makeExercise({ ...request, zone, seed, later }).passage;
      for (const [place, one] of notes.entries()) {
        if (one.chord !== 1 || one.part !== 'fill') continue;
        // What is neither passes by a half step.
        const pitch = pitchClass(one.note);
        const next = notes[place + 1];
        const passes = next && Math.abs(pitchAt(NECK, next) - pitchAt(NECK, one)) === 1;
        const held = one.beat >= 6 * BEAT ? altered : own;
        expect(held.has(pitch) || passes, `seed ${seed}, beat ${inBeats(one.beat)}`).toBe(true);
        if (!own.has(pitchClass(one.note))) heard += 1;
      }
    }
    expect(heard).toBeGreaterThan(0);
  });
});

describe('a motif', () => {
  test('is read off notes already played: their rhythm and their contour', () => {
    const { request } = setting(FORMS['a minor form']);
    const { notes } = makeExercise({ ...request, seed: 2 }).passage;
    const motif = motifOf(NECK, notes);
    expect(motif?.onsets[0]).toBe(0);
    expect(motif?.steps.length).toBe((motif?.onsets.length ?? 0) - 1);
    expect(motifOf(NECK, notes.slice(0, 2))).toBeNull();
  });
});
