/** A band and the line over it as a MusicXML 4.0 score: a staff for each part, in written beats. */
import type { Drum } from '../../band/events';
import { lastBy } from '../../band/form';
import { spellOver } from '../../chords/over';
import { group } from '../../lists';
import type { Midi } from '../../notes/pitch';
import { simplestPitch } from '../../notes/spelling';
import { barsWith, type NotatedBar, type NotatedEvent } from '../../phrases/measures';
import { harmony } from '../chart/musicxml/write';
import {
  clefNode,
  keyNode,
  pitchNode,
  type ScorePart,
  tempoNode,
  timeNode,
  valueNodes,
  wordsNode,
  writeScore,
} from '../musicxml/score';
import { element, type XmlNode } from '../musicxml/xml';
import { type BandScore, type BandTrack, DRUM_KEYS, type TrackNote } from './tracks';
import { inShortest, onPaper, PER_QUARTER } from '../../time/noteValues';
import { quarterOf } from '../../time/metre';
import type { Beats } from '../../time/units';

/** Where a drum stands on the staff, and the head of its notes. */
const STAVES: Readonly<Record<Drum, readonly [step: string, octave: number, head: string]>> = {
  kick: ['F', 4, 'normal'],
  snare: ['C', 5, 'normal'],
  rim: ['C', 5, 'x'],
  hat: ['G', 5, 'x'],
  'open-hat': ['G', 5, 'circle-x'],
  'pedal-hat': ['D', 4, 'x'],
  ride: ['F', 5, 'x'],
  crash: ['A', 5, 'x'],
  tom: ['E', 5, 'normal'],
};

const DRUMS_BY_KEY: ReadonlyMap<Midi, Drum> = new Map(
  (Object.keys(STAVES) as Drum[]).map((drum) => [DRUM_KEYS[drum], drum]),
);

/** Channels of General MIDI, counted from 1 as MusicXML does. */
const DRUM_CHANNEL = 10;
/** A note of this strength has MusicXML's dynamics of 100. */
const FORTE = 90 / 127;

const drumId = (part: string, midi: Midi): string => `${part}-I${midi + 1}`;

function instrumentNodes(track: BandTrack, id: string, channel: number): readonly XmlNode[] {
  const { program, name } = track;
  if (program !== null) {
    const own = `${id}-I1`;
    return [
      element('score-instrument', { id: own }, element('instrument-name', {}, name)),
      element(
        'midi-instrument',
        { id: own },
        element('midi-channel', {}, channel),
        element('midi-program', {}, program + 1),
      ),
    ];
  }
  const used = [...DRUMS_BY_KEY].filter(([key]) => track.notes.some(({ midi }) => midi === key));
  return [
    ...used.map(([midi, drum]) =>
      element(
        'score-instrument',
        { id: drumId(id, midi) },
        element('instrument-name', {}, drum.replace('-', ' ')),
      ),
    ),
    ...used.map(([midi]) =>
      element(
        'midi-instrument',
        { id: drumId(id, midi) },
        element('midi-channel', {}, DRUM_CHANNEL),
        element('midi-unpitched', {}, midi + 1),
      ),
    ),
  ];
}

/** Drums ring to the next stroke, or to the end of the beat: few rests are easier to read. */
function rung(notes: readonly TrackNote[], { time }: BandScore): readonly TrackNote[] {
  const quarter = quarterOf(time.unit);
  return notes.map((note) => {
    const beats = quarter * (Math.floor(note.beat / quarter) + 1) - note.beat;
    return { ...note, beats };
  });
}

interface Staff {
  readonly score: BandScore;
  readonly track: BandTrack;
  readonly id: string;
}

function soundedNodes({ score, track, id }: Staff, note: TrackNote) {
  const drum = track.program === null ? DRUMS_BY_KEY.get(note.midi) : undefined;
  if (drum !== undefined) {
    const [step, octave, head] = STAVES[drum];
    return {
      pitch: element(
        'unpitched',
        {},
        element('display-step', {}, step),
        element('display-octave', {}, octave),
      ),
      instrument: [element('instrument', { id: drumId(id, note.midi) })],
      head: head === 'normal' ? [] : [element('notehead', {}, head)],
    };
  }
  const chord = score.chords[lastBy(score.chords, note.beat)]?.chord;
  const spelled = chord ? spellOver(chord, note.midi) : simplestPitch(note.midi);
  return { pitch: pitchNode(spelled, note.midi), instrument: [], head: [] };
}

function eventNodes(staff: Staff, event: NotatedEvent<TrackNote>): readonly XmlNode[] {
  const { value, length, notes, tiedFrom, tiedTo } = event;
  const duration = element('duration', {}, inShortest(length, staff.score.time.unit));
  const voice = element('voice', {}, 1);
  if (notes.length === 0)
    return [element('note', {}, element('rest'), duration, voice, ...valueNodes(value))];
  const ties = (name: string): readonly XmlNode[] => [
    ...(tiedFrom ? [element(name, { type: 'stop' })] : []),
    ...(tiedTo ? [element(name, { type: 'start' })] : []),
  ];
  return notes.map((note, index) => {
    const { pitch, instrument, head } = soundedNodes(staff, note);
    return element(
      'note',
      { dynamics: Math.round((100 * note.velocity) / FORTE) },
      ...(index > 0 ? [element('chord')] : []),
      pitch,
      duration,
      ...ties('tie'),
      ...instrument,
      voice,
      ...valueNodes(value),
      ...head,
      ...(tiedFrom || tiedTo ? [element('notations', {}, ...ties('tied'))] : []),
    );
  });
}

const CLEFS: Readonly<Record<BandTrack['part'], XmlNode>> = {
  line: clefNode('G', 2, { lower: 1 }),
  bass: clefNode('F', 4, { lower: 1 }),
  comp: clefNode('G', 2),
  drums: clefNode('percussion', null),
};

function attributes({ score, track }: Staff): XmlNode {
  return element(
    'attributes',
    {},
    element('divisions', {}, PER_QUARTER),
    ...(track.program === null ? [] : [keyNode(score.key)]),
    timeNode(score.time),
    CLEFS[track.part],
  );
}

function measureNode(staff: Staff, bar: NotatedBar<TrackNote>, first: boolean, top: boolean) {
  const { score } = staff;
  const symbols = top
    ? score.chords.flatMap(({ chord, beat }) => {
        const start = onPaper(beat, score.time.unit) - bar.from;
        const offset = inShortest(start, score.time.unit);
        return start >= 0 && start < bar.length
          ? [harmony(chord, offset > 0 ? [element('offset', {}, offset)] : [])]
          : [];
      })
    : [];
  const tempo = score.tempo[0]?.bpm;
  const directions =
    first && top
      ? [
          ...(score.feel ? [wordsNode(score.feel.name)] : []),
          ...(tempo === undefined ? [] : [tempoNode(tempo, score.time.unit)]),
        ]
      : [];
  return element(
    'measure',
    { number: bar.number, ...(bar.number === 0 ? { implicit: 'yes' } : {}) },
    ...(first ? [attributes(staff)] : []),
    ...directions,
    ...symbols,
    ...bar.events.flatMap((event) => eventNodes(staff, event)),
  );
}

/** Notes of a track as one voice: none sounds past the end, of one pitch struck twice at once one. */
function voiceOf(score: BandScore, track: BandTrack, pickUp: Beats) {
  const heard = track.program === null ? rung(track.notes, score) : track.notes;
  const moments = group(
    heard.toSorted((a, b) => a.beat - b.beat || a.midi - b.midi),
    ({ beat }) => onPaper(beat, score.time.unit),
  );
  const notes = [...moments.values()].flatMap((some) =>
    some
      .filter(({ midi }, index) => some.findIndex((one) => one.midi === midi) === index)
      .map((note) => ({ ...note, beats: Math.min(note.beats, score.beats - note.beat) })),
  );
  const { time, beats } = score;
  return barsWith({ notes, time, beats, pickUp, metreChanges: [] });
}

/**
 * The score; what begins before beat 0 is a pick-up. Beats and lengths are as written: its feel stands over it.
 *
 * @example writeBandScore({ title: 'A loop', time, tempo, key, feel, beats: 16 * BEAT, chords, tracks })
 */
export function writeBandScore(score: BandScore): string {
  const begins = score.tracks.flatMap(({ notes }) => notes.map(({ beat }) => beat));
  const pickUp = Math.max(0, -Math.min(0, ...begins));
  const parts = score.tracks.map((track, index): ScorePart => {
    const staff: Staff = { score, track, id: `P${index + 1}` };
    // The channel of the drums is theirs alone.
    const channel = index + 1 < DRUM_CHANNEL ? index + 1 : index + 2;
    return {
      name: track.name,
      instrument: (id) => instrumentNodes(track, id, channel),
      measures: voiceOf(score, track, pickUp).map((bar, order) =>
        measureNode(staff, bar, order === 0, index === 0),
      ),
    };
  });
  return writeScore(score.title, parts);
}
