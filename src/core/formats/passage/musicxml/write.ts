/** A passage as MusicXML 4.0: a staff that sounds an octave lower, tablature under it, and chords. */
import { at } from '../../../lists';
import { openPitch, pitchAt, stringCount } from '../../../neck/neck';
import { alteration, letter } from '../../../notes/notes';
import { octaveOf } from '../../../notes/pitch';
import { simplestPitch } from '../../../notes/spelling';
import { measuresOf, type NotatedBar, type NotatedEvent } from '../../../phrases/measures';
import type { Passage, PlayedNote } from '../../../phrases/passage';
import { type Technique, techniqueOf } from '../../../phrases/techniques';
import {
  clefNode,
  keyNode,
  pitchNode,
  tempoNode,
  timeNode,
  valueNodes,
  wordsNode,
  writeScore,
} from '../../musicxml/score';
import { element, type XmlNode } from '../../musicxml/xml';
import type { Written } from '../../result';
import { harmony } from '../../chart/musicxml/write';
import { inShortest, onPaper, PER_QUARTER } from '../../../time/noteValues';

const STAFF = { notes: 1, tab: 2 } as const;
type Staff = (typeof STAFF)[keyof typeof STAFF];

/** Techniques drawn from the note before on the same string into their own. */
const JOINING = ['hammer-on', 'pull-off', 'slide'] as const;
type Joining = (typeof JOINING)[number];

/** The notes that a technique of a later note on their string begins on. */
type Joints = ReadonlyMap<PlayedNote, ReadonlySet<Joining>>;

const joinsBefore = ({ techniques }: PlayedNote): readonly Joining[] =>
  JOINING.filter((kind) => {
    const found = techniqueOf(techniques, kind);
    return found && !(found.kind === 'slide' && (found.from ?? found.to) !== undefined);
  });

interface Joined {
  readonly begun: Joints;
  /** The notes whose own joining techniques have a note to come from. */
  readonly ended: ReadonlySet<PlayedNote>;
}

function joinedIn(notes: readonly PlayedNote[]): Joined {
  const last = new Map<number, PlayedNote>();
  const begun = new Map<PlayedNote, Set<Joining>>();
  const ended = new Set<PlayedNote>();
  for (const note of notes) {
    const before = last.get(note.string);
    const joins = joinsBefore(note);
    if (before && joins.length > 0) {
      begun.set(before, new Set([...(begun.get(before) ?? []), ...joins]));
      ended.add(note);
    }
    last.set(note.string, note);
  }
  return { begun, ended };
}

const soundedNode = ({ neck }: Passage, played: PlayedNote): XmlNode =>
  pitchNode(played.note, pitchAt(neck, played));

const LETTERS: Readonly<Record<Joining, string>> = {
  'hammer-on': 'H',
  'pull-off': 'P',
  slide: 'S',
};

/** How a technique that no other note takes part in is written. */
function technicalNodes(technique: Technique): readonly XmlNode[] {
  switch (technique.kind) {
    case 'bend': {
      const bend = [
        element('bend', {}, element('bend-alter', {}, technique.by)),
        element('bend', {}, element('bend-alter', {}, -technique.by), element('release')),
      ];
      return technique.release ? bend : bend.slice(0, 1);
    }
    case 'slide':
      return [
        element(
          'other-technical',
          {},
          technique.from !== undefined
            ? `slide from ${technique.from}`
            : technique.to !== undefined
              ? `slide to ${technique.to}`
              : 'slide',
        ),
      ];
    case 'hammer-on':
    case 'pull-off':
    case 'mute':
    case 'let-ring':
      return [element('other-technical', {}, technique.kind)];
    case 'vibrato':
    case 'grace':
      return [];
  }
}

interface Part {
  readonly passage: Passage;
  readonly joined: Joined;
}

function techniqueNodes(note: PlayedNote, { joined: { begun, ended } }: Part) {
  const starts = [...(begun.get(note) ?? [])];
  const stops = ended.has(note) ? joinsBefore(note) : [];
  const alone = note.techniques.filter(({ kind }) => !(stops as readonly string[]).includes(kind));
  const slurs = (kinds: readonly Joining[], type: 'start' | 'stop') =>
    kinds
      .filter((kind) => kind !== 'slide')
      .map((kind) => element(kind, { type, number: 1 }, type === 'start' ? LETTERS[kind] : ''));
  const slides = (kinds: readonly Joining[], type: 'start' | 'stop') =>
    kinds.includes('slide') ? [element('slide', { type, number: 1, 'line-type': 'solid' })] : [];
  return {
    slides: [...slides(stops, 'stop'), ...slides(starts, 'start')],
    ornaments: techniqueOf(note.techniques, 'vibrato')
      ? [
          element(
            'ornaments',
            {},
            element('wavy-line', { type: 'start', number: 1 }),
            element('wavy-line', { type: 'stop', number: 1 }),
          ),
        ]
      : [],
    technical: [
      ...slurs(stops, 'stop'),
      ...slurs(starts, 'start'),
      ...alone.flatMap(technicalNodes),
    ],
  };
}

interface Tied {
  readonly from: boolean;
  readonly to: boolean;
}

function notations(part: Part, note: PlayedNote, tied: Tied, staff: Staff): readonly XmlNode[] {
  const ties = [
    ...(tied.from ? [element('tied', { type: 'stop' })] : []),
    ...(tied.to ? [element('tied', { type: 'start' })] : []),
  ];
  if (staff === STAFF.notes) return ties.length > 0 ? [element('notations', {}, ...ties)] : [];
  const techniques = tied.from
    ? { slides: [], ornaments: [], technical: [] }
    : techniqueNodes(note, part);
  const technical = element(
    'technical',
    {},
    ...techniques.technical,
    element('string', {}, note.string),
    element('fret', {}, note.fret),
  );
  return [
    element('notations', {}, ...ties, ...techniques.slides, ...techniques.ornaments, technical),
  ];
}

/** Voices 1 and 5, as scores of two staves are usually numbered. */
const VOICES: Readonly<Record<Staff, number>> = { 1: 1, 2: 5 };

function graceNodes(part: Part, note: PlayedNote, staff: Staff): XmlNode {
  return element(
    'note',
    {},
    element('grace', { slash: 'yes' }),
    soundedNode(part.passage, note),
    element('voice', {}, VOICES[staff]),
    element('type', {}, '16th'),
    element('staff', {}, staff),
    ...notations(part, note, { from: false, to: false }, staff),
  );
}

function eventNodes(part: Part, event: NotatedEvent, staff: Staff): readonly XmlNode[] {
  const { value, length, notes, graces, tiedFrom, tiedTo } = event;
  const timing: readonly XmlNode[] = [
    element('voice', {}, VOICES[staff]),
    ...valueNodes(value),
    element('staff', {}, staff),
  ];
  const duration = element('duration', {}, inShortest(length, part.passage.time.unit));
  if (notes.length === 0) return [element('note', {}, element('rest'), duration, ...timing)];
  const struck = notes.map((note, index) =>
    element(
      'note',
      {},
      ...(index > 0 ? [element('chord')] : []),
      soundedNode(part.passage, note),
      duration,
      ...(tiedFrom ? [element('tie', { type: 'stop' })] : []),
      ...(tiedTo ? [element('tie', { type: 'start' })] : []),
      ...timing,
      ...notations(part, note, { from: tiedFrom, to: tiedTo }, staff),
    ),
  );
  return [...graces.map((note) => graceNodes(part, note, staff)), ...struck];
}

function attributes(passage: Passage, bar: NotatedBar): XmlNode {
  const { neck } = passage;
  const strings = stringCount(neck);
  const tunings = Array.from({ length: strings }, (_, line) => {
    // Lines are counted from the lowest; so are the tuning's strings.
    const midi = openPitch(neck, strings - line);
    const note = simplestPitch(midi);
    return element(
      'staff-tuning',
      { line: line + 1 },
      element('tuning-step', {}, letter(note)),
      ...(alteration(note) === 0 ? [] : [element('tuning-alter', {}, alteration(note))]),
      element('tuning-octave', {}, octaveOf(note, midi)),
    );
  });
  return element(
    'attributes',
    {},
    element('divisions', {}, PER_QUARTER),
    keyNode(passage.key),
    timeNode(bar.time),
    element('staves', {}, 2),
    clefNode('G', 2, { number: STAFF.notes, lower: 1 }),
    clefNode('TAB', 5, { number: STAFF.tab }),
    element(
      'staff-details',
      { number: STAFF.tab },
      element('staff-lines', {}, strings),
      ...tunings,
      ...(neck.capo > 0 ? [element('capo', {}, neck.capo)] : []),
    ),
  );
}

/** Chord symbols that begin in a bar, each before the event that sounds when it does. */
function symbolsIn(passage: Passage, { from, length }: NotatedBar) {
  return passage.chords
    .map(({ chord, beat }) => ({ chord, start: onPaper(beat, passage.time.unit) - from }))
    .filter(({ start }) => start >= 0 && start < length);
}

/** Feel and tempo over the first bar. */
const directions = ({ feel, tempo, time }: Passage): readonly XmlNode[] => [
  ...(feel ? [wordsNode(feel.name)] : []),
  ...(tempo === null ? [] : [tempoNode(tempo, time.unit)]),
];

function measureNode(part: Part, bar: NotatedBar, before: NotatedBar | undefined): XmlNode {
  const { passage } = part;
  const symbols = [...symbolsIn(passage, bar)];
  const staff: XmlNode[] = [];
  for (const event of bar.events) {
    const end = event.start + event.length;
    while (symbols.length > 0 && at(symbols, 0).start < end) {
      const { chord, start } = at(symbols, 0);
      const offset = inShortest(start - event.start, passage.time.unit);
      staff.push(harmony(chord, offset > 0 ? [element('offset', {}, offset)] : []));
      symbols.shift();
    }
    staff.push(...eventNodes(part, event, STAFF.notes));
  }
  const sameTime = before?.time.beats === bar.time.beats && before.time.unit === bar.time.unit;
  const head = before
    ? sameTime
      ? []
      : [element('attributes', {}, timeNode(bar.time))]
    : [attributes(passage, bar), ...directions(passage)];
  return element(
    'measure',
    { number: bar.number, ...(bar.number === 0 ? { implicit: 'yes' } : {}) },
    ...head,
    ...staff,
    element('backup', {}, element('duration', {}, inShortest(bar.length, passage.time.unit))),
    ...bar.events.flatMap((event) => eventNodes(part, event, STAFF.tab)),
  );
}

/** The passage as a MusicXML document, which holds all of it. */
export function writePassage(passage: Passage): Written<string> {
  const part: Part = { passage, joined: joinedIn(passage.notes) };
  const bars = measuresOf(passage);
  const measures = bars.map((bar, index) => measureNode(part, bar, bars[index - 1]));
  return { content: writeScore(passage.title, [{ name: 'Guitar', measures }]), remarks: [] };
}
