/** What every MusicXML 4.0 score that is written has in common. */
import { type Key, signatureOf } from '../../keys/keys';
import { alteration, letter, type Note } from '../../notes/notes';
import { type Midi, octaveOf } from '../../notes/pitch';
import type { TimeSignature } from '../../time/metre';
import type { NoteValue } from '../../time/noteValues';
import type { BeatsPerMinute } from '../../time/units';
import { element, writeXml, type XmlNode } from './xml';

/** The `key` element; no sharps or flats where there is no key. */
export const keyNode = (key: Key | null): XmlNode =>
  element(
    'key',
    {},
    element('fifths', {}, key ? signatureOf(key) : 0),
    ...(key ? [element('mode', {}, key.mode)] : []),
  );

/** The `time` element. */
export const timeNode = ({ beats, unit }: TimeSignature): XmlNode =>
  element('time', {}, element('beats', {}, beats), element('beat-type', {}, unit));

/** A clef; how many octaves lower than written it sounds. */
export const clefNode = (
  sign: 'G' | 'F' | 'TAB' | 'percussion',
  line: number | null,
  { lower = 0, number }: { readonly lower?: number; readonly number?: number } = {},
): XmlNode =>
  element(
    'clef',
    number === undefined ? {} : { number },
    element('sign', {}, sign),
    ...(line === null ? [] : [element('line', {}, line)]),
    ...(lower === 0 ? [] : [element('clef-octave-change', {}, -lower)]),
  );

/** A spelled note that sounds at a MIDI number. */
export const pitchNode = (note: Note, midi: Midi): XmlNode =>
  element(
    'pitch',
    {},
    element('step', {}, letter(note)),
    ...(alteration(note) === 0 ? [] : [element('alter', {}, alteration(note))]),
    element('octave', {}, octaveOf(note, midi)),
  );

/** How a value is written, beside its duration. */
export const valueNodes = ({ type, dots, triplet }: NoteValue): readonly XmlNode[] => [
  element('type', {}, type),
  ...(dots > 0 ? [element('dot')] : []),
  ...(triplet
    ? [
        element(
          'time-modification',
          {},
          element('actual-notes', {}, 3),
          element('normal-notes', {}, 2),
        ),
      ]
    : []),
];

/** A direction over the staff. */
export const directionNode = (...types: readonly XmlNode[]): XmlNode =>
  element(
    'direction',
    { placement: 'above' },
    ...types.map((type) => element('direction-type', {}, type)),
  );

/** Words over a measure, as a direction. */
export const wordsNode = (words: string): XmlNode => directionNode(element('words', {}, words));

const UNITS: Readonly<Record<number, string>> = {
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
};

/** So many beats a minute, in the unit of the time signature. */
export const tempoNode = (tempo: BeatsPerMinute, unit: number): XmlNode =>
  element(
    'direction',
    { placement: 'above' },
    element(
      'direction-type',
      {},
      element(
        'metronome',
        {},
        element('beat-unit', {}, UNITS[unit] ?? 'quarter'),
        element('per-minute', {}, tempo),
      ),
    ),
    element('sound', { tempo: (tempo * 4) / unit }),
  );

/** A part of a score. */
export interface ScorePart {
  readonly name: string;
  readonly measures: readonly XmlNode[];
  /** What a program plays it with, besides its name. */
  readonly instrument?: (id: string) => readonly XmlNode[];
}

const HEAD =
  '<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n' +
  '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" ' +
  '"http://www.musicxml.org/dtds/partwise.dtd">\n';

/** A whole score; no title where it is empty. */
export function writeScore(
  title: string,
  parts: readonly ScorePart[],
  miscellaneous: readonly XmlNode[] = [],
): string {
  const score = element(
    'score-partwise',
    { version: '4.0' },
    ...(title === '' ? [] : [element('work', {}, element('work-title', {}, title))]),
    element(
      'identification',
      {},
      element('encoding', {}, element('software', {}, 'Corvel')),
      ...(miscellaneous.length > 0 ? [element('miscellaneous', {}, ...miscellaneous)] : []),
    ),
    element(
      'part-list',
      {},
      ...parts.map(({ name, instrument }, index) =>
        element(
          'score-part',
          { id: `P${index + 1}` },
          element('part-name', {}, name),
          ...(instrument?.(`P${index + 1}`) ?? []),
        ),
      ),
    ),
    ...parts.map(({ measures }, index) => element('part', { id: `P${index + 1}` }, ...measures)),
  );
  return `${HEAD}${writeXml(score)}\n`;
}
