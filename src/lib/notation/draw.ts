/** The systems of a passage drawn as staff and tablature. Large: it comes when a sheet is shown. */
import type { Beats } from '$core/time/units';
import {
  Accidental,
  Beam,
  Bend,
  Dot,
  Formatter,
  GhostNote,
  type RenderContext,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  type StemmableNote,
  TabNote,
  TabSlide,
  TabStave,
  TabTie,
  Tuplet,
  Voice,
} from 'vexflow/bravura';
import type { NotatedEvent } from '$core/phrases/measures';
import { fretText } from '$core/formats/passage/tab/write';
import { at } from '$core/lists';
import { noteName, type Passage, pitchAt } from 'corvel-core';
import { stringCount } from '$core/neck/neck';
import { octaveOf } from '$core/notes/pitch';
import type { PlayedNote } from '$core/phrases/passage';
import { type Technique, techniqueOf } from '$core/phrases/techniques';
import {
  CHORD_LINE,
  DEGREE_LINE,
  layOutSheet,
  MARGIN,
  PAPER_WIDTH,
  type System,
  TAB_LINE,
} from './systems';
import { degreesOf } from './degrees';
import { NAME_FACE, NAME_GAP, NAME_SIZE, nameOf, type PlacedName, standApart } from './names';
import { quarterOf } from '$core/time/metre';

const DURATIONS = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
} as const;
/** The face of the degrees, with real signs for accidentals. */
const PLAIN = "'Atkinson Hyperlegible Next Variable', 'Corvel Signs', sans-serif";
/** In points, as the notation library takes them. */
const DEGREE_SIZE = 8;

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

/** How far a string is bent, as it is written over the arrow. */
const BEND_WORDS = { 1: '½', 2: 'full', 3: '1½', 4: '2' } as const;

/** What is drawn between notes or over them is not written beside the fret too. */
const isDrawn = (one: Technique): boolean =>
  one.kind === 'bend' ||
  one.kind === 'hammer-on' ||
  one.kind === 'pull-off' ||
  (one.kind === 'slide' && one.from === undefined && one.to === undefined);

const written = ({ fret, techniques }: PlayedNote): string =>
  fretText({ fret, techniques: techniques.filter((one) => !isDrawn(one)) });

function tabNote({ value, notes, tiedFrom }: NotatedEvent): TabNote | GhostNote {
  const duration = DURATIONS[value.type] + (value.dots > 0 ? 'd' : '');
  if (notes.length === 0 || tiedFrom) return new GhostNote(duration);
  const positions = notes.map((note) => ({ str: note.string, fret: written(note) }));
  const drawn = new TabNote({ positions, duration });
  for (const [index, { techniques }] of notes.entries()) {
    const bend = techniqueOf(techniques, 'bend');
    if (!bend) continue;
    const up = { type: Bend.UP, text: BEND_WORDS[bend.by] };
    const phrase = bend.release ? [up, { type: Bend.DOWN, text: '' }] : [up];
    drawn.addModifier(new Bend(phrase), index);
  }
  return drawn;
}

/** A note of the tablature already drawn, that the next may be joined to. */
interface DrawnTab {
  readonly note: TabNote;
  readonly notes: readonly PlayedNote[];
}

/** Slurs and slides from the notes before, on the string where each is played. */
function joinTabs(context: RenderContext, before: DrawnTab | null, here: DrawnTab): void {
  for (const [index, { string, fret, techniques }] of here.notes.entries()) {
    const slide = techniques.find(
      (one) => one.kind === 'slide' && one.from === undefined && one.to === undefined,
    );
    const slur = techniques.find(({ kind }) => kind === 'hammer-on' || kind === 'pull-off');
    if (!slide && !slur) continue;
    const first = before?.notes.findIndex((one) => one.string === string) ?? -1;
    const from = before && first >= 0 ? { firstNote: before.note } : {};
    const ends = {
      ...from,
      lastNote: here.note,
      firstIndexes: [Math.max(0, first)],
      lastIndexes: [index],
    };
    const rising = (before?.notes[first]?.fret ?? 0) <= fret;
    const joint = slide
      ? new TabSlide(ends, rising ? TabSlide.SLIDE_UP : TabSlide.SLIDE_DOWN)
      : new TabTie(ends, slur?.kind === 'hammer-on' ? 'h' : 'p');
    joint.setContext(context).draw();
  }
}

/** Events of one beat that stand three in the time of two. */
function tripletGroups<N>(
  events: readonly NotatedEvent[],
  notes: readonly N[],
  unit: number,
): readonly (readonly N[])[] {
  const groups = new Map<number, N[]>();
  for (const [index, { value, start }] of events.entries()) {
    if (!value.triplet) continue;
    const beat = Math.floor(start / quarterOf(unit));
    groups.set(beat, [...(groups.get(beat) ?? []), at(notes, index)]);
  }
  return [...groups.values()];
}

/** Something drawn that sounds from one beat to another, and where in its system its notes stand. */
export interface DrawnEvent {
  readonly from: Beats;
  readonly to: Beats;
  readonly x: number;
}

/** What has to be known of the bar before to draw one: a note tied over, and its line. */
interface Tie {
  readonly note: StaveNote | null;
}

/** How many lines over the tablature the letters of slurs stand: near it, away from the staff’s beams. */
const LETTERS = 0.3;

/** Draws the staves of one bar, the staff and the tablature each in a step of its own; the notes follow. */
function* drawStaves(
  context: RenderContext,
  system: System,
  place: number,
  { x, width }: BarBox,
): Generator<void, { readonly stave: Stave; readonly tab: TabStave }> {
  const { passage, signature, heights } = system.sheet;
  const measure = at(system.bars, place);
  const strings = stringCount(passage.neck);
  const stave = new Stave(x, heights.staff, width, { spaceAboveStaffLn: 0 });
  const tab = new TabStave(x, heights.tab, width, {
    numLines: strings,
    spaceAboveStaffLn: 0,
    spacingBetweenLinesPx: TAB_LINE,
    topTextPosition: LETTERS,
  });
  if (place === 0) {
    stave.addClef('treble', 'default', '8vb');
    tab.addTabGlyph();
    if (signature !== 'C') stave.addKeySignature(signature);
  }
  if (measure.newTime) stave.addTimeSignature(`${measure.time.beats}/${measure.time.unit}`);
  stave.setMeasure(place === 0 ? Math.max(0, measure.number) : 0);
  yield;
  stave.setContext(context).draw();
  yield;
  tab.setNoteStartX(stave.getNoteStartX());
  tab.setContext(context).draw();
  yield;
  if (place === 0) new StaveConnector(stave, tab).setType('singleLeft').setContext(context).draw();
  return { stave, tab };
}

interface BarBox {
  readonly x: number;
  readonly width: number;
}

/**
 * Draws a system into an element, in steps each short enough for a frame; what was drawn before is
 * replaced. What it returns are the events drawn.
 */
export function* drawSystem(
  container: HTMLDivElement,
  system: System,
): Generator<void, readonly DrawnEvent[]> {
  const { passage, width, signature, headWidth, heights, degrees } = system.sheet;
  container.replaceChildren();
  const renderer = new Renderer(container, Renderer.Backends.SVG);
  renderer.resize(width, heights.all);
  const context = renderer.getContext();
  // Nothing is pressed in a sheet, and what cannot be seen would still be drawn apart, note by note.
  context.pointerRect = () => context;
  const svg = container.querySelector('svg');
  svg?.setAttribute('viewBox', `0 0 ${width} ${heights.all}`);
  yield;
  const drawn: DrawnEvent[] = [];
  const room = width - 2 * MARGIN - headWidth;
  const needed = system.bars.reduce((sum, bar) => sum + system.sheet.widthOf(bar), 0);
  // A last short line is not stretched across the page.
  const stretch = Math.min(room / needed, 2.6);
  let tie: Tie | null = system.tiedIn ? { note: null } : null;
  let tabbed = null as DrawnTab | null;
  let x = MARGIN;
  for (const [place, measure] of system.bars.entries()) {
    const barWidth = system.sheet.widthOf(measure) * stretch + (place === 0 ? headWidth : 0);
    const { stave, tab } = yield* drawStaves(context, system, place, { x, width: barWidth });
    yield;
    const staveNotes: StaveNote[] = [];
    const tabNotes: (TabNote | GhostNote)[] = [];
    for (const event of measure.events) {
      staveNotes.push(staveNote(passage, event));
      tabNotes.push(tabNote(event));
      yield;
    }
    const groups = tripletGroups(measure.events, staveNotes, passage.time.unit);
    const tuplets = groups.map(
      (notes) => new Tuplet([...notes], { numNotes: 3, notesOccupied: 2, ratioed: false }),
    );
    // Tablature keeps the same time, without a bracket of its own.
    for (const notes of tripletGroups(measure.events, tabNotes, passage.time.unit)) {
      new Tuplet([...notes] as StemmableNote[], { numNotes: 3, notesOccupied: 2 });
    }
    const meter = { numBeats: measure.time.beats, beatValue: measure.time.unit };
    const voice = new Voice(meter).setMode(Voice.Mode.SOFT).addTickables(staveNotes);
    const tabVoice = new Voice(meter).setMode(Voice.Mode.SOFT).addTickables(tabNotes);
    Accidental.applyAccidentals([voice], signature);
    yield;
    const beams = Beam.generateBeams(staveNotes, { beamRests: false });
    yield;
    const inner = barWidth - (stave.getNoteStartX() - x) - 14;
    new Formatter()
      .joinVoices([voice])
      .joinVoices([tabVoice])
      .format([voice, tabVoice], Math.max(40, inner));
    yield;
    for (const note of staveNotes) {
      note.setStave(stave).setContext(context).drawWithStyle();
      yield;
    }
    for (const beam of beams) {
      beam.setContext(context).draw();
      yield;
    }
    for (const tuplet of tuplets) tuplet.setContext(context).draw();
    yield;
    for (const note of tabNotes) {
      note.setStave(tab).setContext(context).drawWithStyle();
      yield;
    }
    for (const [index, event] of measure.events.entries()) {
      const note = at(tabNotes, index);
      if (!(note instanceof TabNote)) {
        // A rest ends what could be joined; a note that rings on does not.
        if (event.notes.length === 0) tabbed = null;
        continue;
      }
      const here = { note, notes: event.notes };
      joinTabs(context, tabbed, here);
      tabbed = here;
    }
    yield;
    const names: PlacedName[] = [];
    for (const [index, event] of measure.events.entries()) {
      const note = at(staveNotes, index);
      if (event.tiedFrom && tie) {
        // Over a line's end a tie is drawn in two halves.
        const ends = tie.note ? { firstNote: tie.note, lastNote: note } : { lastNote: note };
        new StaveTie(ends).setContext(context).draw();
      }
      tie = event.tiedTo ? { note } : null;
      const from = measure.from + event.start;
      const to = from + event.length;
      const left = note.getAbsoluteX();
      if (event.notes.length > 0) drawn.push({ from, to, x: left });
      const after = staveNotes[index + 1]?.getAbsoluteX() ?? x + barWidth;
      for (const { chord, beat } of passage.chords) {
        if (beat < from || beat >= to) continue;
        const through = (beat - from) / (to - from);
        names.push({ ...nameOf(chord), x: left - 4 + through * (after - left) });
      }
      if (!degrees) continue;
      context.setFont(PLAIN, DEGREE_SIZE, 'normal');
      degreesOf(passage, event).forEach((degree, row) => {
        const y = heights.degrees + DEGREE_LINE * row;
        context.fillText(degree, left + 5 - (degree.length * DEGREE_SIZE) / 3, y);
      });
      yield;
    }
    const begins = x + (place === 0 ? headWidth : NAME_GAP);
    x += barWidth;
    const { places, scale } = standApart(names, begins, x);
    context.setFont(NAME_FACE, NAME_SIZE * scale, 'bold');
    for (const [index, { text }] of names.entries()) {
      context.openGroup('chord-name');
      context.fillText(text, at(places, index), CHORD_LINE - 5);
      context.closeGroup();
    }
    yield;
  }
  if (tie?.note) new StaveTie({ firstNote: tie.note }).setContext(context).draw();
  return drawn;
}

/** Draws all of a passage at the paper's width, no system broken over two pages. */
export function drawOnPaper(paper: HTMLDivElement, passage: Passage, degrees: boolean): void {
  paper.replaceChildren();
  for (const system of layOutSheet(passage, { width: PAPER_WIDTH, medium: 'paper', degrees })) {
    const into = document.createElement('div');
    into.className = 'break-inside-avoid [&>svg]:block [&>svg]:h-auto [&>svg]:w-full';
    paper.append(into);
    for (const step of drawSystem(into, system)) void step;
  }
}
