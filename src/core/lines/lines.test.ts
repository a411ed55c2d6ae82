import { describe, expect, test } from 'vitest';
import type { Chart } from '../chart/form';
import { sameChord } from '../chords/chords';
import { degreeOver, weightOver } from '../chords/over';
import { type ExerciseRequest, makeExercise } from '../exercises/exercises';
import { readHarmony } from '../harmony/reading';
import { signatureTonic } from '../keys/keys';
import { proposeIntents } from '../lenses/styles';
import { collection } from '../collections/collections';
import { collectionMaterial, defaultMaterial } from '../lenses/material';
import { note, pitchClass } from '../notes/notes';
import { fallsBackward } from '../phrases/backward';
import { firstOption, lensContexts } from '../lenses/options';
import { at, range } from '../lists';
import { reachOf } from '../neck/hand';
import { inZone, pitchAt, STANDARD_NECK as NECK, type Zone } from '../neck/neck';
import { zonesOf } from '../neck/zones';
import { landingsOf } from '../listening/landings';
import type { PlayedNote } from '../phrases/passage';
import { techniqueOf } from '../phrases/techniques';
import { SUBDIVISIONS } from '../time/subdivision';
import { motifOf } from './motif';
import { restShare } from './rests';
import { swaysIn, turnsIn } from './score';
import { chartOf, pairs, some } from '$tests/laws';

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

function setting(text: string): { chart: Chart; zones: readonly Zone[]; request: ExerciseRequest } {
  const chart = chartOf(text);
  const reading = readHarmony(chart);
  const { key } = reading.key;
  const contexts = lensContexts(chart, reading);
  const tonic = key ? signatureTonic(key) : at(chart.chords, 0).chord.root;
  const zones = zonesOf(NECK, tonic);
  const request: ExerciseRequest = {
    ...{ chart, key, kind: 'line', subdivision: 'eighths', neck: NECK, zones },
    zone: at(zones, 0),
    materials: chart.chords.map(({ index, chord }) => {
      const context = contexts[index];
      return (context && firstOption(context)?.material) ?? defaultMaterial(chord);
    }),
    intents: proposeIntents(chart, reading, 'chord-tones'),
    ...{ prefer: ['3', '7'], pins: {}, extent: 'whole', from: 0, strings: [1, 2, 3] },
    ...{ group: 4, seed: 1 },
  };
  return { chart, zones, request };
}

const sounded = (note: PlayedNote): number =>
  pitchAt(NECK, note) + (techniqueOf(note.techniques, 'bend')?.by ?? 0);

/** What a player would count in a line. */
function counted(chart: Chart, notes: readonly PlayedNote[]) {
  const bar = chart.source.time.beats;
  const bars = chart.bars.length;
  const pitches = notes.map(sounded);
  const inBar = range(0, bars).map((number) =>
    notes.flatMap(({ beat }, index) => (Math.floor(beat / bar + 1e-6) === number ? [index] : [])),
  );
  const full = inBar.filter((own) => own.length >= 1.5 * bar);
  const once = full.filter((own) => turnsIn(own.map((index) => at(pitches, index))) === 1);
  const off = inBar.filter(
    ([first], number) => first === undefined || at(notes, first).beat > number * bar + 1e-6,
  );
  const changes = chart.chords.filter(
    ({ chord }, index) => index === 0 || !sameChord(chord, at(chart.chords, index - 1).chord),
  );
  const landed = changes.filter(({ index }) =>
    notes.some(({ part, chord }) => part === 'target' && chord === index),
  );
  const breathless = range(0, bars - 3).filter((from) => {
    let reached = from * bar;
    const end = reached + 4 * bar;
    for (const { beat, beats } of notes) {
      if (beat + beats <= reached || beat >= end) continue;
      if (beat - reached >= 0.5 - 1e-6) return false;
      reached = beat + beats;
    }
    return end - reached < 0.5 - 1e-6;
  });
  const leaps = range(1, pitches.length).filter(
    (index) => Math.abs(at(pitches, index) - at(pitches, index - 1)) >= 5,
  );
  const shapes = range(0, notes.length - 3).map((index) =>
    [1, 2, 3]
      .map((step) => {
        const [from, to] = [index + step - 1, index + step];
        const time = at(notes, to).beat - at(notes, from).beat;
        return `${time.toFixed(2)} ${Math.sign(at(pitches, to) - at(pitches, from))}`;
      })
      .join(),
  );
  const last = at(notes, notes.length - 1);
  const { chord } = at(chart.chords, last.chord ?? 0);
  return {
    once: full.length === 0 ? 0 : once.length / full.length,
    off: off.length / bars,
    rests: restShare(notes, bars * bar),
    breathless: breathless.length,
    sways: (16 * swaysIn(pitches)) / Math.max(16, bars),
    leaps: (8 * leaps.length) / bars,
    landed: landed.length / changes.length,
    closed: weightOver(chord, degreeOver(chord, last.note)) !== 'colour' && last.beats >= 1,
    range: Math.max(...pitches) - Math.min(...pitches),
    returns: new Set(shapes).size < shapes.length,
  };
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

describe('landings', () => {
  test('played as it is written, a line lands on all it aims at, which is where the plan aims', () => {
    for (const [text, subdivision, seed] of some(
      [...Object.values(FORMS), BLUES].flatMap((form) =>
        SUBDIVISIONS.flatMap((one) => SEEDS.slice(0, 6).map((own) => [form, one, own] as const)),
      ),
      90,
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
        expect(targets.length).toBeGreaterThan(0);
        for (const { index, string, fret } of targets)
          expect(route.find(({ chord }) => chord === index)).toMatchObject({ string, fret });
      }
    }
  });
});

describe('lines sound like somebody playing', () => {
  const forms = Object.entries(FORMS);

  test.each(forms)('%s', (name, text) => {
    const { chart, zones, request } = setting(text);
    const which = forms.findIndex(([other]) => other === name);
    for (const zone of some(zones, 1, which)) {
      const lines = SEEDS.map((seed) => makeExercise({ ...request, zone, seed }).passage.notes);
      const counts = lines.map((notes) => counted(chart, notes));
      const share = (holds: (one: ReturnType<typeof counted>) => boolean) =>
        counts.filter(holds).length / counts.length;
      expect(mean(counts.map(({ once }) => once))).toBeLessThan(0.5);
      expect(mean(counts.map(({ off }) => off))).toBeGreaterThan(0.25);
      expect(share(({ rests }) => rests >= 0.1 && rests <= 0.4)).toBe(1);
      expect(share(({ breathless }) => breathless === 0)).toBe(1);
      expect(share(({ sways }) => sways <= 1)).toBeGreaterThan(0.9);
      expect(share(({ leaps }) => leaps >= 1 && leaps <= 6)).toBeGreaterThan(0.9);
      expect(mean(counts.map(({ landed }) => landed))).toBeGreaterThan(0.75);
      expect(share(({ closed }) => closed)).toBe(1);
      expect(mean(counts.map(({ range }) => range))).toBeGreaterThan(11.9);
      expect(share(({ returns }) => returns)).toBeGreaterThan(0.8);
      const firsts = lines.map((notes) =>
        notes
          .filter(({ beat }) => beat < chart.source.time.beats)
          .map(({ beat, string, fret }) => `${beat}:${string}:${fret}`)
          .join(),
      );
      for (const first of firsts) {
        expect(firsts.filter((other) => other === first).length).toBeLessThanOrEqual(3);
      }
    }
  });

  test('never two notes at once, never out of the hand’s reach, never into a bar without a chord', () => {
    const text = 'key: C\n| Dm7 | G7 | N.C. | Cmaj7 / N.C. A7 |';
    const { chart, request } = setting(text);
    for (const [subdivision, seed] of some(pairs(SUBDIVISIONS, SEEDS), 24)) {
      const { notes } = makeExercise({ ...request, subdivision, seed }).passage;
      expect(notes.length).toBeGreaterThan(4);
      for (const [index, { beat, beats, fret, chord }] of notes.entries()) {
        const next = notes[index + 1];
        const over = at(chart.chords, chord ?? -1);
        expect(beats).toBeGreaterThan(0);
        expect(beat + beats).toBeLessThanOrEqual((next?.beat ?? Infinity) + 1e-9);
        expect(inZone(reachOf(NECK, request.zone), fret)).toBe(true);
        const following = chart.chords.find(
          (one) => Math.abs(one.beat - over.beat - over.beats) < 1e-6,
        );
        if (!following) expect(beat + beats).toBeLessThanOrEqual(over.beat + over.beats + 1e-9);
      }
    }
  });
});

describe('hands in a blues', () => {
  test('bend and slide at least twice a chorus, and only as a hand can', () => {
    const { zones, request } = setting(BLUES);
    for (const [zone, seed] of some(pairs(zones, SEEDS), 24)) {
      const { notes } = makeExercise({ ...request, zone, seed }).passage;
      let gestures = 0;
      for (const [index, note] of notes.entries()) {
        const bend = techniqueOf(note.techniques, 'bend');
        const slide = techniqueOf(note.techniques, 'slide');
        if (bend ?? slide) gestures += 1;
        if (bend) {
          expect(note.string).toBeLessThanOrEqual(3);
          expect(note.fret).toBeGreaterThan(2);
          expect(note.beats).toBeGreaterThanOrEqual(0.5);
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
    for (const [zone, seed] of some(pairs(zones, SEEDS), 24)) {
      const { notes } = makeExercise({ ...request, zone, seed, materials }).passage;
      for (const [index, one] of notes.slice(1).entries()) {
        const before = at(notes, index);
        const { chord } = at(chart.chords, one.chord ?? 0);
        const same = sameChord(chord, at(chart.chords, before.chord ?? 0).chord);
        const falls = same && fallsBackward(chord, sounded(before), sounded(one));
        expect(falls, `${JSON.stringify(zone)}, seed ${seed}, beat ${one.beat}`).toBe(false);
      }
    }
  });
});

describe('two sounds on one chord', () => {
  test('the second is played from its beat on, and nothing else there', () => {
    const { chart, zones, request } = setting('key: C\n| Dm7 | G7 | Cmaj7 | % |');
    const second = collectionMaterial(collection(note('G'), 'altered'));
    const later = chart.chords.map((_, index) =>
      index === 1 ? { material: second, after: 2 } : null,
    );
    const altered = new Set(second.notes.map(pitchClass));
    const own = new Set(at(request.materials, 1).notes.map(pitchClass));
    let heard = 0;
    for (const [zone, seed] of some(pairs(zones, SEEDS), 24)) {
      const { notes } = makeExercise({ ...request, zone, seed, later }).passage;
      for (const [place, one] of notes.entries()) {
        if (one.chord !== 1 || one.part !== 'fill') continue;
        // What leads into the next target may be chromatic.
        if (notes[place + 1]?.part === 'target') continue;
        const held = one.beat >= 6 ? altered : own;
        expect(held.has(pitchClass(one.note)), `seed ${seed}, beat ${one.beat}`).toBe(true);
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
