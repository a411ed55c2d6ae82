/** Drums: the feel's pattern, varied now and then, a small fill into each section. */
import { at } from '../lists';
import { hashed } from '../random';
import type { Energy, PartOptions } from './bass';
import type { Drum, DrumEvent } from './events';
import type { BandForm } from './form';
import { type Choose, type Hit, hitsOf, inTurn } from './hits';
import { type Cells, type DrumLine, type FeelPatterns, FILLS } from './patterns';
import { pulsesOf } from '../time/pulses';
import { BEAT, type Beats } from '../time/units';

/** How often a line is varied, by how much is played: in a chorus that drops, as a rule, and where it is busy. */
const VARIED: Readonly<Record<Energy, number>> = { drop: 0.35, usual: 0.5, busy: 0.65 };
/** Phrases of drums are so many bars; how often one ends with a fill, and how soft that is. */
const PHRASE = { bars: 4, fill: 0.4, loud: 0.75 } as const;
/** A stroke rings on by itself; written down it has a length. */
const STROKE: Beats = BEAT / 4;

/** Whether a bar leads into another section. */
const leadsOn = (form: BandForm, bar: number, loops: boolean): boolean =>
  form.bars.length > 2 && at(form.bars, bar).closes && (loops || bar < form.bars.length - 1);

const struck = (drum: Drum, { beat, pulse, accent }: Hit, velocity: number): DrumEvent => ({
  part: 'drums',
  drum,
  beat,
  beats: pulse.beats / 4,
  velocity: Math.min(1, velocity * accent),
});

/** The drums over a form, in order of time. */
export function drumsOf(
  form: BandForm,
  { drums, opening }: Pick<FeelPatterns, 'drums' | 'opening'>,
  { feel, seed, loops, energy }: PartOptions,
): readonly DrumEvent[] {
  const varied = VARIED[energy];
  const lineOf = (line: DrumLine, index: number): readonly DrumEvent[] => {
    const { vary } = line;
    const both = (own: 'two' | 'three') => [...line[own], ...(vary?.[own] ?? [])];
    const all: Cells = { two: both('two'), three: both('three') };
    // Group by group the line as it is, or one of its variants: no bar comes too often.
    const some: Choose = (cells, bar, group) => {
      const plain = cells === all.two ? line.two : line.three;
      const others = cells.length - plain.length;
      const isVaried = others > 0 && hashed(seed, index, bar, group) < varied;
      return isVaried
        ? at(cells, plain.length + Math.floor(hashed(seed, index, group, 5) * others))
        : inTurn(plain, bar, group);
    };
    return hitsOf(form, all, feel, some).map((hit) => struck(line.drum, hit, line.velocity));
  };
  const lines = drums.flatMap(lineOf);
  const loudest = Math.max(...drums.map(({ velocity }) => velocity));
  // Each fill is laid over the form once, however many sections it leads into.
  const pulses = pulsesOf(form.time);
  const lastGroup = at(pulses, pulses.length - 1).group;
  const laid = FILLS.map((fill) => {
    const strokes = (drum: Drum, cells: Cells) =>
      hitsOf(form, cells, feel, inTurn)
        .filter(({ pulse }) => pulse.group === lastGroup)
        .map((hit) => ({ bar: hit.bar, stroke: struck(drum, hit, loudest) }));
    return [...strokes('snare', fill), ...strokes('tom', fill.tom)];
  });
  const fills = form.bars.flatMap((_, bar): readonly DrumEvent[] => {
    const section = leadsOn(form, bar, loops);
    const phrase =
      bar % PHRASE.bars === PHRASE.bars - 1 &&
      bar < form.bars.length - 1 &&
      hashed(seed, bar, 13) < (energy === 'drop' ? 0 : PHRASE.fill);
    if (!section && !phrase) return [];
    const fill = at(laid, Math.floor(hashed(seed, bar, 11) * laid.length));
    return fill
      .filter((one) => one.bar === bar && (section || one.stroke.drum === 'snare'))
      .map(({ stroke }) =>
        section ? stroke : { ...stroke, velocity: PHRASE.loud * stroke.velocity },
      );
  });
  const openings = form.bars.flatMap(({ beat, opens }, bar): readonly DrumEvent[] => {
    if (opening === null || !opens || bar === 0) return [];
    const stroke = { part: 'drums', beat, beats: STROKE, velocity: loudest } as const;
    return [
      { ...stroke, drum: opening },
      { ...stroke, drum: 'kick' },
    ];
  });
  const filled = new Set(fills.map(({ beat }) => beat));
  const snares = lines.filter(({ drum, beat }) => drum !== 'snare' || !filled.has(beat));
  const opened = new Set(openings.map(({ beat }) => beat));
  const kicks = snares.filter(({ drum, beat }) => drum !== 'kick' || !opened.has(beat));
  return [...kicks, ...fills, ...openings].sort((a, b) => a.beat - b.beat);
}
