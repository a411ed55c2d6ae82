/**
 * A passage as JSON: `{"format":"corvel-passage","version":2,…}`, which holds all of it but the
 * chords over it. Version 1, with one articulation on a note, is still read.
 */
import { z } from 'zod';
import { parseKey, writeKey } from '../../keys/keys';
import { makeNeck } from '../../neck/instruments';
import { openPitch, stringCount } from '../../neck/neck';
import { noteName, parseNote } from '../../notes/notes';
import { pitchName } from '../../notes/pitch';
import { simplestPitch } from '../../notes/spelling';
import { inTime, type Passage, PLAIN_PASSAGE, type PlayedNote } from '../../phrases/passage';
import { bendBy, inOrder, type Technique } from '../../phrases/techniques';
import { readFeel } from '../../time/feel';
import { meantBeats } from '../../time/meant';
import { NOTE_LIMIT, type PassageResult, refused, type Written } from '../result';
import { techniqueSchema } from './techniqueSchema';
import { inBeats } from '../../time/units';

const LONGEST = 100_000;
const beat = z.number().min(-64).max(LONGEST).overwrite(meantBeats);
const beats = z.number().min(0).max(LONGEST).overwrite(meantBeats);
const time = z.object({ beats: z.int().min(1).max(32), unit: z.int().min(1).max(32) });

const played = {
  beat,
  beats,
  string: z.int().min(1).max(8),
  fret: z.int().min(0).max(36),
  note: z.string().max(4),
  chord: z.int().nullable(),
  part: z.enum(['target', 'approach', 'fill']),
};

const head = {
  format: z.literal('corvel-passage'),
  title: z.string().max(200),
  time,
  tempo: z.number().min(1).max(999).nullable(),
  beats,
  neck: z.object({ tuning: z.array(z.string().max(8)).max(8), frets: z.int(), capo: z.int() }),
};

const passageSchema = z.object({
  ...head,
  version: z.literal(2),
  key: z.string().max(40).nullable(),
  metreChanges: z.array(z.object({ beat, time })).max(2_048),
  pickUp: z.number().min(0).max(32).overwrite(meantBeats),
  feel: z.string().max(60).nullable(),
  notes: z
    .array(z.object({ ...played, techniques: z.array(techniqueSchema).max(8) }))
    .max(NOTE_LIMIT),
});

type Kept = z.infer<typeof passageSchema>;

const articulation = z.union([
  z.object({ kind: z.literal('bend'), halfSteps: z.int().min(1).max(3), release: z.boolean() }),
  z.object({ kind: z.enum(['slide', 'hammer-on', 'pull-off', 'vibrato']) }),
]);

const firstVersion = z
  .object({
    ...head,
    version: z.literal(1),
    notes: z.array(z.object({ ...played, articulation: articulation.nullable() })).max(NOTE_LIMIT),
  })
  .transform(({ notes, ...rest }): Kept => {
    const techniquesOf = (how: z.infer<typeof articulation> | null): Technique[] => {
      if (how === null) return [];
      return [how.kind === 'bend' ? bendBy(how.halfSteps, how.release) : { kind: how.kind }];
    };
    return {
      ...rest,
      version: 2,
      key: null,
      metreChanges: [],
      pickUp: 0,
      feel: null,
      notes: notes.map(({ articulation: how, ...note }) => ({
        ...note,
        techniques: techniquesOf(how),
      })),
    };
  });

const eitherVersion = z.union([passageSchema, firstVersion]);

/** A passage as JSON of the latest version. */
export function writePassageJson(passage: Passage): Written<string> {
  const { title, key, time: metre, metreChanges, pickUp, feel, tempo, neck, notes } = passage;
  const strings = Array.from({ length: stringCount(neck) }, (_, index) => {
    const midi = openPitch(neck, stringCount(neck) - index);
    return pitchName(simplestPitch(midi), midi);
  });
  const kept: Kept = {
    format: 'corvel-passage',
    version: 2,
    title,
    key: key && writeKey(key),
    time: metre,
    metreChanges: metreChanges.map((change) => ({ ...change, beat: inBeats(change.beat) })),
    pickUp: inBeats(pickUp),
    feel: feel && feel.name,
    tempo,
    beats: inBeats(passage.beats),
    neck: { tuning: strings, frets: neck.frets, capo: neck.capo },
    notes: notes.map(({ note, techniques, beat: begins, beats: lasts, ...rest }) => ({
      beat: inBeats(begins),
      beats: inBeats(lasts),
      ...rest,
      note: noteName(note),
      techniques: [...techniques],
    })),
  };
  return { content: `${JSON.stringify(kept, null, 1)}\n`, remarks: [] };
}

/** The passage of a JSON text of any version, or why it is none. */
export function readPassageJson(text: string): PassageResult {
  let kept: unknown;
  try {
    kept = JSON.parse(text);
  } catch {
    return refused('This JSON is broken off or damaged.');
  }
  const parsed = eitherVersion.safeParse(kept);
  if (!parsed.success) return refused('This JSON is no passage of Corvel’s.');
  const { title, key, time: metre, metreChanges, pickUp, feel, tempo, neck, notes } = parsed.data;
  const made = makeNeck(neck);
  if (!made.ok) return refused(made.message);
  const spelled = notes.flatMap(({ note, techniques, ...rest }): PlayedNote[] => {
    const read = parseNote(note);
    return read === null ? [] : [{ ...rest, note: read, techniques: inOrder(techniques) }];
  });
  if (spelled.length < notes.length) return refused('Some notes of this file have no name.');
  return {
    ok: true,
    passage: {
      ...PLAIN_PASSAGE,
      title,
      time: metre,
      metreChanges,
      pickUp,
      tempo,
      beats: parsed.data.beats,
      key: key === null ? null : parseKey(key),
      feel: readFeel(feel),
      neck: made.neck,
      notes: inTime(spelled),
    },
    remarks: [],
  };
}
