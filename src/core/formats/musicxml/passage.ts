/** A passage as MusicXML 4.0: a staff that sounds an octave lower, tablature under it, and chords. */
import type { Articulation, Passage, PlayedNote } from '../../phrases/played';
import { at } from '../../lists';
import { openPitch, stringCount, pitchAt } from '../../neck/neck';
import { alteration, letter } from '../../notes/notes';
import { octaveOf } from '../../notes/pitch';
import { simplestPitch } from '../spelling';
import { beatTicks, type Event, type Measure, measuresOf, QUARTER } from '../rhythm';
import { harmony, type Node } from './write';
import { element, writeXml } from './xml';

const STAFF = { notes: 1, tab: 2 } as const;
type Staff = (typeof STAFF)[keyof typeof STAFF];

function pitchNode(passage: Passage, played: PlayedNote): Node {
  const midi = pitchAt(passage.neck, played);
  const { note } = played;
  return element(
    'pitch',
    {},
    element('step', {}, letter(note)),
    ...(alteration(note) === 0 ? [] : [element('alter', {}, alteration(note))]),
    element('octave', {}, octaveOf(note, midi)),
  );
}

function articulationNodes(articulation: Articulation): readonly Node[] {
  switch (articulation.kind) {
    case 'bend':
      return [
        element(
          'bend',
          {},
          element('bend-alter', {}, articulation.halfSteps),
          ...(articulation.release ? [element('release')] : []),
        ),
      ];
    case 'hammer-on':
      return [element('hammer-on', { type: 'start', number: 1 }, 'H')];
    case 'pull-off':
      return [element('pull-off', { type: 'start', number: 1 }, 'P')];
    default:
      return [element('other-technical', {}, articulation.kind)];
  }
}

function notations(event: Event, note: PlayedNote, staff: Staff): readonly Node[] {
  const { tiedFrom, tiedTo } = event;
  const ties = [
    ...(tiedFrom ? [element('tied', { type: 'stop' })] : []),
    ...(tiedTo ? [element('tied', { type: 'start' })] : []),
  ];
  const struck = !tiedFrom;
  const technical =
    staff === STAFF.tab
      ? [
          element(
            'technical',
            {},
            ...(struck && note.articulation ? articulationNodes(note.articulation) : []),
            element('string', {}, note.string),
            element('fret', {}, note.fret),
          ),
        ]
      : [];
  return ties.length + technical.length > 0
    ? [element('notations', {}, ...ties, ...technical)]
    : [];
}

/** Voices 1 and 5, as scores of two staves are usually numbered. */
const VOICES: Readonly<Record<Staff, number>> = { 1: 1, 2: 5 };

function eventNodes(passage: Passage, event: Event, staff: Staff): readonly Node[] {
  const { value, notes, tiedFrom, tiedTo } = event;
  const timing: readonly Node[] = [
    element('voice', {}, VOICES[staff]),
    element('type', {}, value.type),
    ...(value.dots > 0 ? [element('dot')] : []),
  ];
  const after: readonly Node[] = [
    ...(value.triplet
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
  const duration = element('duration', {}, value.ticks);
  if (notes.length === 0) {
    return [
      element(
        'note',
        {},
        element('rest'),
        duration,
        ...timing,
        ...after,
        element('staff', {}, staff),
      ),
    ];
  }
  return notes.map((note, index) =>
    element(
      'note',
      {},
      ...(index > 0 ? [element('chord')] : []),
      pitchNode(passage, note),
      duration,
      ...(tiedFrom ? [element('tie', { type: 'stop' })] : []),
      ...(tiedTo ? [element('tie', { type: 'start' })] : []),
      ...timing,
      ...after,
      element('staff', {}, staff),
      ...notations(event, note, staff),
    ),
  );
}

function attributes({ time, neck }: Passage): Node {
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
    element('divisions', {}, QUARTER),
    element('key', {}, element('fifths', {}, 0)),
    element('time', {}, element('beats', {}, time.beats), element('beat-type', {}, time.unit)),
    element('staves', {}, 2),
    element(
      'clef',
      { number: STAFF.notes },
      element('sign', {}, 'G'),
      element('line', {}, 2),
      element('clef-octave-change', {}, -1),
    ),
    element('clef', { number: STAFF.tab }, element('sign', {}, 'TAB'), element('line', {}, 5)),
    element(
      'staff-details',
      { number: STAFF.tab },
      element('staff-lines', {}, strings),
      ...tunings,
      ...(neck.capo > 0 ? [element('capo', {}, neck.capo)] : []),
    ),
  );
}

/** Chord symbols that begin in a measure, each before the event that sounds when it does. */
function symbolsIn(passage: Passage, { number, ticks }: Measure) {
  const tick = beatTicks(passage.time.unit);
  const from = (number - 1) * ticks;
  return passage.chords
    .map(({ chord, beat }) => ({ chord, start: Math.round(beat * tick) - from }))
    .filter(({ start }) => start >= 0 && start < ticks);
}

function measureNode(passage: Passage, measure: Measure): Node {
  const symbols = [...symbolsIn(passage, measure)];
  const staff: Node[] = [];
  for (const event of measure.events) {
    const end = event.start + event.value.ticks;
    while (symbols.length > 0 && at(symbols, 0).start < end) {
      const { chord, start } = at(symbols, 0);
      const node = harmony(chord);
      const inner = node['harmony'] as Node[];
      const offset = start - event.start;
      if (offset > 0) inner.push(element('offset', {}, offset));
      staff.push(node);
      symbols.shift();
    }
    staff.push(...eventNodes(passage, event, STAFF.notes));
  }
  const tempo =
    measure.number === 1 && passage.tempo !== null
      ? [
          element(
            'direction',
            { placement: 'above' },
            element(
              'direction-type',
              {},
              element(
                'metronome',
                {},
                element('beat-unit', {}, passage.time.unit === 8 ? 'eighth' : 'quarter'),
                element('per-minute', {}, passage.tempo),
              ),
            ),
            element('sound', { tempo: (passage.tempo * 4) / passage.time.unit }),
          ),
        ]
      : [];
  return element(
    'measure',
    { number: measure.number },
    ...(measure.number === 1 ? [attributes(passage)] : []),
    ...tempo,
    ...staff,
    element('backup', {}, element('duration', {}, measure.ticks)),
    ...measure.events.flatMap((event) => eventNodes(passage, event, STAFF.tab)),
  );
}

const HEAD =
  '<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n' +
  '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n';

/** The passage as a MusicXML document. */
export function writePassage(passage: Passage): string {
  const score = element(
    'score-partwise',
    { version: '4.0' },
    element('work', {}, element('work-title', {}, passage.title)),
    element('identification', {}, element('encoding', {}, element('software', {}, 'Corvel'))),
    element(
      'part-list',
      {},
      element('score-part', { id: 'P1' }, element('part-name', {}, 'Guitar')),
    ),
    element('part', { id: 'P1' }, ...measuresOf(passage).map((one) => measureNode(passage, one))),
  );
  return `${HEAD}${writeXml(score)}\n`;
}
