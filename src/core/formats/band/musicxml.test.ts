import { describe, expect, test } from 'vitest';
import { bandOf } from '../../band/band';
import { bandForm } from '../../band/form';
import { type Chart, readChart } from '../../chart/form';
import { FEEL_KINDS, readFeel } from '../../time/feel';
import { type BandTrack, DRUM_KEYS } from './tracks';
import { childNamed, childrenNamed, readXml, textAt, type XmlElement } from '../musicxml/xml';
import { writeBandScore } from './musicxml';
import { BEAT, inBeats } from '../../time/units';

function chartOf(text: string): Chart {
  const read = readChart(text);
  if (!read.ok) throw new Error(text);
  return read.chart;
}
function rootOf(text: string): XmlElement {
  const read = readXml(text);
  if (!read.ok) throw new Error(read.message);
  return read.root;
}
const FORMS = {
  4: '| Dm7 | G7 | Ebmaj7 F7 | Bbmaj7 |',
  3: 'time: 3/4\n| Dm7 | G7 | Cmaj7 | % |',
  12: 'time: 12/8\n| F#7 | B7 | F#7 | C#7 |',
};

/** The tracks of a band, in their order, and its score as it reads. */
function scored(feel: (typeof FEEL_KINDS)[number], text: string, pickUp = 0) {
  const form = bandForm(chartOf(text));
  const band = bandOf(form, { feel, seed: 3 });
  const tracks = (['bass', 'comp', 'drums'] as const).map((part): BandTrack => ({
    part,
    name: { bass: 'Bass', comp: 'Comping', drums: 'Drums' }[part],
    program: part === 'drums' ? null : 0,
    notes: band
      .filter((one) => one.part === part)
      .map((one) => ({ ...one, midi: one.part === 'drums' ? DRUM_KEYS[one.drum] : one.midi })),
  }));
  const led = { part: 'line' as const, name: 'Line', program: 26, notes: [] as BandTrack['notes'] };
  if (pickUp > 0)
    led.notes = [{ beat: -pickUp * BEAT, beats: pickUp * BEAT, velocity: 0.5, midi: 60 }];
  const all = pickUp > 0 ? [led, ...tracks] : tracks;
  const { time, beats, chords } = form;
  const score = writeBandScore({
    title: 'A loop',
    time,
    beats,
    chords,
    tracks: all,
    tempo: [{ beat: 0, bpm: 120 }],
    key: null,
    feel: readFeel(feel),
  });
  return { form, tracks: all, parts: childrenNamed(rootOf(score), 'part') };
}

interface Read {
  readonly onsets: readonly number[];
  readonly bars: readonly number[];
}

/** Where notes are struck in a part, in twelfths of a quarter, and how long its measures are. */
function readPart(part: XmlElement): Read {
  const onsets = new Set<number>();
  const bars: number[] = [];
  let now = 0;
  for (const measure of childrenNamed(part, 'measure')) {
    const begins = now;
    for (const note of childrenNamed(measure, 'note')) {
      if (childNamed(note, 'chord')) continue;
      const tied = childrenNamed(note, 'tie').some(
        ({ attributes }) => attributes['type'] === 'stop',
      );
      if (!childNamed(note, 'rest') && !tied) onsets.add(now);
      now += Number(textAt(note, 'duration'));
    }
    bars.push(now - begins);
  }
  return { onsets: [...onsets], bars };
}

describe('the score of a band', () => {
  test.each(FEEL_KINDS.map((feel) => [feel] as const))(
    'in %s strikes where it is written, and every measure is full',
    (feel) => {
      const text = feel === 'jazz waltz' ? FORMS[3] : feel === 'slow 12/8' ? FORMS[12] : FORMS[4];
      const { form, tracks, parts } = scored(feel, text);
      const tick = 48 / form.time.unit;
      expect(parts).toHaveLength(3);
      for (const [index, part] of parts.entries()) {
        const { onsets, bars } = readPart(part);
        expect(bars).toEqual(form.bars.map(() => form.time.beats * tick));
        const struck = new Set(
          tracks[index]?.notes.map(({ beat }) => Math.round(inBeats(beat) * tick)),
        );
        expect(onsets).toEqual([...struck].sort((a, b) => a - b));
      }
    },
  );

  test('spells over its chords, and says feel, tempo and chords once', () => {
    const { parts } = scored('swing', FORMS[4]);
    const [bass, comp] = parts;
    const altered = parts.slice(0, 2).flatMap((part) =>
      childrenNamed(part, 'measure')
        .slice(2)
        .flatMap((measure) => childrenNamed(measure, 'note'))
        .filter((note) => !childNamed(note, 'rest'))
        .map((note) => Number(textAt(note, 'pitch', 'alter'))),
    );
    // Over E flat and B flat nothing is a chord tone with a sharp.
    expect(altered.some((alter) => alter === -1)).toBe(true);
    const first = (part: XmlElement | undefined, name: string) =>
      part ? childrenNamed(part, 'measure').flatMap((one) => childrenNamed(one, name)) : [];
    expect(first(bass, 'harmony')).toHaveLength(5);
    expect(first(comp, 'harmony')).toHaveLength(0);
    expect(first(bass, 'direction').map((one) => textAt(one, 'direction-type', 'words'))).toEqual([
      'swing',
      '',
    ]);
  });

  test('puts drums on their lines, each with a sound of its own', () => {
    const drums = scored('rock', FORMS[4]).parts[2];
    const notes = childrenNamed(drums as XmlElement, 'measure').flatMap((one) =>
      childrenNamed(one, 'note'),
    );
    const snare = notes.find(
      (note) => childNamed(note, 'instrument')?.attributes['id'] === `P3-I${DRUM_KEYS.snare + 1}`,
    );
    expect(textAt(snare, 'unpitched', 'display-step')).toBe('C');
    expect(notes.some((note) => textAt(note, 'notehead') === 'x')).toBe(true);
    expect(notes.every((note) => childNamed(note, 'pitch') === undefined)).toBe(true);
  });

  test('a pick-up is a measure before the first, in every part', () => {
    const { parts } = scored('swing', FORMS[4], 1.5);
    for (const part of parts) {
      const [first, second] = childrenNamed(part, 'measure');
      expect(first?.attributes).toMatchObject({ number: '0', implicit: 'yes' });
      expect(second?.attributes['number']).toBe('1');
      expect(readPart(part).bars).toEqual([18, 48, 48, 48, 48]);
    }
  });
});
