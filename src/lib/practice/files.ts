/** Passages as files: MIDI, MusicXML, tablature and our JSON, out and in. */
import { z } from 'zod';
import { makeNeck } from '$core/neck/instruments';
import { type Neck, openPitch, stringCount } from '$core/neck/neck';
import { noteName, parseNote } from '$core/notes/notes';
import { pitchName } from '$core/notes/pitch';
import { simplestPitch } from '$core/formats/spelling';
import type { PassageResult } from '$core/formats/midi/read';
import type { Articulation, Passage, PlayedNote } from '$core/phrases/played';

export const PASSAGE_FORMATS = ['midi', 'musicxml', 'tab', 'json'] as const;
export type PassageFormat = (typeof PASSAGE_FORMATS)[number];

export const FORMAT_NAMES: Readonly<Record<PassageFormat, string>> = {
  midi: 'MIDI',
  musicxml: 'MusicXML with tablature',
  tab: 'Tablature, plain text',
  json: 'JSON',
};

export const PASSAGE_TYPES = '.mid,.midi,.musicxml,.xml,.mxl,.txt,.tab,.json';

const articulation = z.union([
  z.object({
    kind: z.literal('bend'),
    halfSteps: z.union([z.literal(1), z.literal(2), z.literal(3)]),
    release: z.boolean(),
  }),
  z.object({ kind: z.enum(['slide', 'hammer-on', 'pull-off', 'vibrato']) }),
]);

export const passageSchema = z.object({
  format: z.literal('corvel-passage'),
  version: z.literal(1),
  title: z.string().max(200),
  time: z.object({ beats: z.int().min(1).max(32), unit: z.int().min(1).max(32) }),
  tempo: z.number().min(1).max(999).nullable(),
  beats: z.number().min(0).max(100_000),
  neck: z.object({
    tuning: z.array(z.string().max(8)).max(8),
    frets: z.int(),
    capo: z.int(),
  }),
  notes: z
    .array(
      z.object({
        beat: z.number().min(0),
        beats: z.number().min(0),
        string: z.int().min(1).max(8),
        fret: z.int().min(0).max(36),
        note: z.string().max(4),
        chord: z.int().nullable(),
        part: z.enum(['target', 'approach', 'fill']),
        articulation: articulation.nullable(),
      }),
    )
    .max(20_000),
});

function toJson({ title, time, tempo, beats, neck, notes }: Passage): string {
  const strings = Array.from({ length: stringCount(neck) }, (_, index) => {
    const midi = openPitch(neck, stringCount(neck) - index);
    return pitchName(simplestPitch(midi), midi);
  });
  const kept: z.infer<typeof passageSchema> = {
    format: 'corvel-passage',
    version: 1,
    title,
    time,
    tempo,
    beats,
    neck: { tuning: strings, frets: neck.frets, capo: neck.capo },
    notes: notes.map(({ note, ...rest }) => ({ ...rest, note: noteName(note) })),
  };
  return `${JSON.stringify(kept, null, 1)}\n`;
}

const refuse = (message: string): PassageResult => ({ ok: false, message });

function fromJson(text: string): PassageResult {
  let kept: unknown;
  try {
    kept = JSON.parse(text);
  } catch {
    return refuse('This JSON is broken off or damaged.');
  }
  const parsed = passageSchema.safeParse(kept);
  if (!parsed.success) return refuse('This JSON is no passage of Corvel’s.');
  const { title, time, tempo, beats, neck: asked, notes } = parsed.data;
  const made = makeNeck(asked);
  if (!made.ok) return refuse(made.message);
  const played = notes.flatMap(({ note, articulation: how, ...rest }): PlayedNote[] => {
    const spelled = parseNote(note);
    return spelled === null
      ? []
      : [{ ...rest, note: spelled, articulation: how as Articulation | null }];
  });
  if (played.length < notes.length) return refuse('Some notes of this file have no name.');
  return {
    ok: true,
    passage: { title, time, tempo, beats, neck: made.neck, chords: [], notes: played },
  };
}

const nameOf = ({ title }: Passage, extension: string): string =>
  `${title.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'Passage'}.${extension}`;

/** The passage as a file. The writers come when one is asked for. */
export async function passageFile(passage: Passage, format: PassageFormat): Promise<File> {
  switch (format) {
    case 'midi': {
      const { writeMidi } = await import('$core/formats/midi/write');
      return new File([writeMidi(passage).slice()], nameOf(passage, 'mid'), { type: 'audio/midi' });
    }
    case 'musicxml': {
      const { writePassage } = await import('$core/formats/musicxml/passage');
      const type = 'application/vnd.recordare.musicxml+xml';
      return new File([writePassage(passage)], nameOf(passage, 'musicxml'), { type });
    }
    case 'tab': {
      const { writeTab } = await import('$core/formats/tab/tab');
      return new File([writeTab(passage)], nameOf(passage, 'txt'), { type: 'text/plain' });
    }
    case 'json':
      return new File([toJson(passage)], nameOf(passage, 'json'), { type: 'application/json' });
  }
}

const LARGEST = 8_000_000;

/** Reads a melody from a file of any of the formats, by what is in it. */
export async function openPassage(bytes: Uint8Array, neck: Neck): Promise<PassageResult> {
  if (bytes.length > LARGEST) return refuse('This file is too large for a melody.');
  if (String.fromCharCode(...bytes.slice(0, 4)) === 'MThd') {
    const { readMidi } = await import('$core/formats/midi/read');
    return readMidi(bytes, neck);
  }
  const { decodeText, isCompressed, unpackScore } =
    await import('$core/formats/musicxml/compressed');
  if (isCompressed(bytes)) {
    const unpacked = unpackScore(bytes);
    if (!unpacked.ok) return unpacked;
    const { readMelody } = await import('$core/formats/musicxml/melody');
    return readMelody(unpacked.text, neck);
  }
  const text = decodeText(bytes).replace(/^\uFEFF/u, '');
  if (/^\s*</u.test(text)) {
    const { readMelody } = await import('$core/formats/musicxml/melody');
    return readMelody(text, neck);
  }
  if (/^\s*\{/u.test(text)) return fromJson(text);
  const { readTab } = await import('$core/formats/tab/tab');
  return readTab(text, neck);
}
