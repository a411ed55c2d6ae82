/** A passage drawn as staff and tablature. Large: it comes when a sheet is shown. */
import { QUARTER } from '$core/time/units';
import { beatTicks } from '$core/time/metre';
import {
  Accidental,
  Beam,
  Dot,
  Formatter,
  GhostNote,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  type StemmableNote,
  TabNote,
  TabStave,
  Tuplet,
  Voice,
} from 'vexflow/bravura';
import { keyOfSignature, signatureOf } from '$core/keys/keys';
import { chordName } from '$core/chords/chords';
import { type NotatedEvent, type NotatedBar, measuresOf } from '$core/phrases/measures';
import { fretText } from '$core/formats/passage/tab';
import { at } from '$core/lists';
import { stringCount, pitchAt } from '$core/neck/neck';
import { noteName } from '$core/notes/notes';
import { octaveOf } from '$core/notes/pitch';
import type { Passage, PlayedNote } from '$core/phrases/passage';
import { showSymbol } from '$lib/ui/glyphs';

/** The signature of a passage, by its major key; C where no key holds. */
function signatureName({ key }: Passage): string {
  if (!key) return 'C';
  return noteName(keyOfSignature(signatureOf(key), 'major').tonic);
}

/** Something drawn that sounds from one beat to another. */
export interface DrawnEvent {
  readonly from: number;
  readonly to: number;
  readonly elements: readonly Element[];
}

const DURATIONS = { whole: 'w', half: 'h', quarter: 'q', eighth: '8', '16th': '16' } as const;
const LEAST_BAR = 90;
const EVENT_WIDTH = 30;
const HEAD_WIDTH = 74;
/** Room an accidental of the signature takes. */
const SIGN_WIDTH = 11;
const LAYOUT = { staff: 34, tab: 128, margin: 8 } as const;
const TAB_LINE = 13;

/** The staff is written an octave above what sounds. */
function keyOf(passage: Passage, note: PlayedNote): string {
  const name = noteName(note.note).replace(/x/gu, '##');
  return `${name.toLowerCase().slice(0, 1)}${name.slice(1)}/${octaveOf(note.note, pitchAt(passage.neck, note)) + 1}`;
}

function staveNote(passage: Passage, { value, notes }: NotatedEvent): StaveNote {
  const duration = DURATIONS[value.type] + (value.dots > 0 ? 'd' : '');
  const rests = notes.length === 0;
  const sorted = [...notes].sort((a, b) => pitchAt(passage.neck, a) - pitchAt(passage.neck, b));
  const note = new StaveNote({
    keys: rests ? ['b/4'] : sorted.map((one) => keyOf(passage, one)),
    duration: rests ? `${duration}r` : duration,
    autoStem: !rests,
  });
  if (value.dots > 0) Dot.buildAndAttach([note], { all: true });
  return note;
}

function tabNote({ value, notes, tiedFrom }: NotatedEvent): TabNote | GhostNote {
  const duration = DURATIONS[value.type] + (value.dots > 0 ? 'd' : '');
  if (notes.length === 0 || tiedFrom) return new GhostNote(duration);
  const positions = notes.map((note) => ({ str: note.string, fret: fretText(note) }));
  return new TabNote({ positions, duration });
}

/** Events of one beat that stand three in the time of two. */
function tripletGroups<N>(
  events: readonly NotatedEvent[],
  notes: readonly N[],
): readonly (readonly N[])[] {
  const groups = new Map<number, N[]>();
  for (const [index, { value, start }] of events.entries()) {
    if (!value.triplet) continue;
    const beat = Math.floor(start / QUARTER);
    groups.set(beat, [...(groups.get(beat) ?? []), at(notes, index)]);
  }
  return [...groups.values()];
}

const widthOf = ({ events }: NotatedBar): number =>
  Math.max(LEAST_BAR, events.length * EVENT_WIDTH);

/** Bars in lines as they fit, each line filled. */
function linesOf(
  measures: readonly NotatedBar[],
  width: number,
  head: number,
): readonly (readonly NotatedBar[])[] {
  const lines: NotatedBar[][] = [];
  let used = Infinity;
  for (const measure of measures) {
    const needed = widthOf(measure);
    if (used + needed > width || (lines.at(-1)?.length ?? 0) >= 4) {
      lines.push([]);
      used = head;
    }
    lines.at(-1)?.push(measure);
    used += needed;
  }
  return lines;
}

/** Draws a passage into an element, in lines of a width; what was drawn before is replaced. */
export function drawPassage(
  container: HTMLDivElement,
  passage: Passage,
  width: number,
): readonly DrawnEvent[] {
  container.replaceChildren();
  const strings = stringCount(passage.neck);
  const measures = measuresOf(passage);
  const headWidth = HEAD_WIDTH + SIGN_WIDTH * Math.abs(passage.key ? signatureOf(passage.key) : 0);
  const lines = linesOf(measures, width - 2 * LAYOUT.margin, headWidth);
  const lineHeight = LAYOUT.tab + TAB_LINE * strings + 34;
  const renderer = new Renderer(container, Renderer.Backends.SVG);
  renderer.resize(width, lines.length * lineHeight + 20);
  const context = renderer.getContext();
  const tick = beatTicks(passage.time.unit);
  const drawn: DrawnEvent[] = [];
  const signature = signatureName(passage);
  let written = '';
  let tieFrom: { readonly note: StaveNote; readonly row: number } | null = null;
  for (const [row, line] of lines.entries()) {
    const top = row * lineHeight;
    const room = width - 2 * LAYOUT.margin - headWidth;
    const needed = line.reduce((sum, measure) => sum + widthOf(measure), 0);
    // A last short line is not stretched across the page.
    const stretch = Math.min(room / needed, 2.6);
    let x: number = LAYOUT.margin;
    for (const [place, measure] of line.entries()) {
      const head = place === 0 ? headWidth : 0;
      const barWidth = widthOf(measure) * stretch + head;
      const stave = new Stave(x, top + LAYOUT.staff, barWidth);
      const tab = new TabStave(x, top + LAYOUT.tab, barWidth, { numLines: strings });
      if (place === 0) {
        stave.addClef('treble', 'default', '8vb');
        tab.addTabGlyph();
      }
      if (place === 0 && signature !== 'C') stave.addKeySignature(signature);
      const signs = `${measure.time.beats}/${measure.time.unit}`;
      if (signs !== written) stave.addTimeSignature(signs);
      written = signs;
      stave.setMeasure(place === 0 ? Math.max(0, measure.number) : 0);
      stave.setContext(context).draw();
      tab.setNoteStartX(stave.getNoteStartX());
      tab.setContext(context).draw();
      if (place === 0) {
        new StaveConnector(stave, tab).setType('singleLeft').setContext(context).draw();
      }
      const staveNotes = measure.events.map((event) => staveNote(passage, event));
      const tabNotes = measure.events.map(tabNote);
      const groups = tripletGroups(measure.events, staveNotes);
      const tabGroups = tripletGroups(measure.events, tabNotes);
      const tuplets = groups.map(
        (notes) => new Tuplet([...notes], { numNotes: 3, notesOccupied: 2, ratioed: false }),
      );
      // Tablature keeps the same time, without a bracket of its own.
      for (const notes of tabGroups) {
        new Tuplet([...notes] as StemmableNote[], { numNotes: 3, notesOccupied: 2 });
      }
      const meter = { numBeats: measure.time.beats, beatValue: measure.time.unit };
      const voice = new Voice(meter).setMode(Voice.Mode.SOFT).addTickables(staveNotes);
      const tabVoice = new Voice(meter).setMode(Voice.Mode.SOFT).addTickables(tabNotes);
      Accidental.applyAccidentals([voice], signature);
      const beams = Beam.generateBeams(staveNotes, { beamRests: false });
      const inner = barWidth - (stave.getNoteStartX() - x) - 14;
      new Formatter()
        .joinVoices([voice])
        .joinVoices([tabVoice])
        .format([voice, tabVoice], Math.max(40, inner));
      voice.draw(context, stave);
      tabVoice.draw(context, tab);
      for (const beam of beams) beam.setContext(context).draw();
      for (const tuplet of tuplets) tuplet.setContext(context).draw();
      for (const [index, event] of measure.events.entries()) {
        const note = at(staveNotes, index);
        if (event.tiedFrom && tieFrom) {
          const sameLine = tieFrom.row === row;
          // Over a line's end a tie is drawn in two halves.
          const halves = sameLine
            ? [{ firstNote: tieFrom.note, lastNote: note }]
            : [{ firstNote: tieFrom.note }, { lastNote: note }];
          for (const half of halves) new StaveTie(half).setContext(context).draw();
        }
        tieFrom = event.tiedTo ? { note, row } : null;
        const from = (measure.from + event.start) / tick;
        const to = from + event.value.ticks / tick;
        if (event.notes.length > 0) {
          const elements = [note, at(tabNotes, index)].flatMap((one) => one.getSVGElement() ?? []);
          drawn.push({ from, to, elements });
        }
        context.setFont("'Source Serif 4 Variable', 'Corvel Signs', serif", 14, 'bold');
        for (const { chord, beat } of passage.chords) {
          if (beat < from - 1e-6 || beat >= to - 1e-6) continue;
          const name = showSymbol(chordName(chord));
          context.fillText(name, note.getAbsoluteX() - 4, top + LAYOUT.staff + 16);
        }
      }
      x += barWidth;
    }
  }
  return drawn;
}
