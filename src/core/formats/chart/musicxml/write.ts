/** A chart as a MusicXML 4.0 lead sheet: chord symbols over rests, one part. */
import type { Bar, ChartSource, Section, Slot } from '../../../chart/syntax';
import type { Chord } from '../../../chords/chords';
import type { Key } from '../../../keys/keys';
import { alteration, letter, type Note } from '../../../notes/notes';
import { at, greatestDivisor } from '../../../lists';
import { kindOf } from '../../musicxml/kinds';
import { repeatSpans } from '../repeats';
import {
  clefNode,
  directionNode,
  keyNode,
  tempoNode,
  timeNode,
  wordsNode,
  writeScore,
} from '../../musicxml/score';
import { element, type XmlNode } from '../../musicxml/xml';

const sharesOf = (slots: readonly Slot[]): number =>
  slots.reduce((sum, { shares }) => sum + shares, 0);

/** Ticks of a quarter note that divide every bar into its shares. */
function divisionsFor(source: ChartSource): number {
  const totals = source.sections.flatMap(({ bars }) =>
    bars.map(({ content }) => (content.kind === 'slots' ? sharesOf(content.slots) : 1)),
  );
  const common = totals.reduce((all, total) => (all * total) / greatestDivisor(all, total), 1);
  return common * Math.max(1, source.time.unit / 4);
}

const pitched = (name: string, note: Note): XmlNode =>
  element(
    name,
    {},
    element(`${name}-step`, {}, letter(note)),
    ...(alteration(note) === 0 ? [] : [element(`${name}-alter`, {}, alteration(note))]),
  );

/** What the player wrote after the root. */
const writtenSuffix = ({ symbol }: Chord): string =>
  symbol
    .replace(/^[A-G](?:bb(?!5)|##|[#b♯♭x𝄪𝄫])?/u, '')
    .replace(/\/[A-G](?:bb|##|[#b♯♭x𝄪𝄫])?$/u, '');

/** A chord symbol over the music; none where no chord sounds. */
export function harmony(chord: Chord | null, after: readonly XmlNode[] = []): XmlNode {
  if (chord === null) {
    const silent = element('kind', { text: 'N.C.' }, 'none');
    return element(
      'harmony',
      {},
      element('root', {}, element('root-step', { text: '' }, 'C')),
      silent,
      ...after,
    );
  }
  const { kind, degrees } = kindOf(chord.quality);
  return element(
    'harmony',
    {},
    pitched('root', chord.root),
    element('kind', { text: writtenSuffix(chord) }, kind),
    ...(chord.bass === null ? [] : [pitched('bass', chord.bass)]),
    ...degrees.map(({ value, alter, type }) =>
      element(
        'degree',
        {},
        element('degree-value', {}, value),
        element('degree-alter', {}, alter),
        element('degree-type', {}, type),
      ),
    ),
    ...after,
  );
}

const rest = (ticks: number): XmlNode =>
  element('note', {}, element('rest'), element('duration', {}, ticks), element('voice', {}, 1));

interface Written {
  readonly bar: Bar;
  readonly section: Section;
  /** Set on the first bar of a section. */
  readonly heading: string | null;
}

/** `%%` is one bar on paper and two measures in a score. */
function measuresOf(bar: Bar): readonly Bar[] {
  if (bar.content.kind === 'slots' || bar.content.bars === 1) return [bar];
  return [
    { ...bar, closesRepeat: null },
    { ...bar, opensRepeat: false, endings: [] },
  ];
}

/** In a score an unopened repeat would reach back over the section's beginning: it is opened. */
function withOpenings(bars: readonly Bar[]): readonly Bar[] {
  const opened = [...bars];
  for (const { start } of repeatSpans(bars))
    opened[start] = { ...at(opened, start), opensRepeat: true };
  return opened;
}

/**
 * The bars in order with their repeats. A section played several times is put between repeat
 * signs where it has none of its own, and written out otherwise.
 */
function writtenBars(source: ChartSource): readonly Written[] {
  return source.sections.flatMap((section) => {
    const { bars, repeats, name } = section;
    const marked = bars.some((bar) => bar.opensRepeat || bar.closesRepeat !== null);
    const endings = bars.some((bar) => bar.endings.length > 0);
    const enclosed = repeats > 1 && !marked && !endings;
    const once = withOpenings(bars).map((bar, index): Bar => ({
      ...bar,
      opensRepeat: bar.opensRepeat || (enclosed && index === 0),
      closesRepeat: enclosed && index === bars.length - 1 ? repeats : bar.closesRepeat,
    }));
    const times = enclosed ? 1 : repeats;
    return Array.from({ length: times }, () => once).flatMap((round) =>
      round
        .flatMap(measuresOf)
        .map((bar, index) => ({ bar, section, heading: index === 0 ? name : null })),
    );
  });
}

function leftBarline({ opensRepeat, endings }: Bar): readonly XmlNode[] {
  if (!opensRepeat && endings.length === 0) return [];
  const numbers = endings.join(',');
  return [
    element(
      'barline',
      { location: 'left' },
      ...(opensRepeat ? [element('bar-style', {}, 'heavy-light')] : []),
      ...(endings.length > 0
        ? [element('ending', { number: numbers, type: 'start' }, `${numbers}.`)]
        : []),
      ...(opensRepeat ? [element('repeat', { direction: 'forward' })] : []),
    ),
  ];
}

function rightBarline(
  { closesRepeat }: Bar,
  ending: readonly number[] | null,
  last: boolean,
): readonly XmlNode[] {
  if (closesRepeat === null && ending === null && !last) return [];
  const times = closesRepeat !== null && closesRepeat !== 2 ? { times: closesRepeat } : {};
  return [
    element(
      'barline',
      { location: 'right' },
      ...(closesRepeat !== null || last ? [element('bar-style', {}, 'light-heavy')] : []),
      ...(ending === null
        ? []
        : [
            element('ending', {
              number: ending.join(','),
              type: closesRepeat === null ? 'discontinue' : 'stop',
            }),
          ]),
      ...(closesRepeat === null ? [] : [element('repeat', { direction: 'backward', ...times })]),
    ),
  ];
}

/** The ending that stops at the right of a bar: it lasts to a repeat, another ending or the end. */
function endingThatStops(written: readonly Written[], index: number): readonly number[] | null {
  let from = index;
  while (from >= 0) {
    const one = written[from];
    if (!one || one.section !== written[index]?.section) return null;
    if (one.bar.endings.length > 0) break;
    if (from < index && one.bar.closesRepeat !== null) return null;
    from -= 1;
  }
  const start = written[from];
  if (!start || start.bar.endings.length === 0) return null;
  const here = written[index];
  const next = written[index + 1];
  const stops =
    !next ||
    here?.bar.closesRepeat !== null ||
    next.section !== here.section ||
    next.bar.endings.length > 0;
  return stops ? start.bar.endings : null;
}

/** The score of a chart. Comments have no place in it. */
export function writeMusicXml(source: ChartSource): string {
  const { time } = source;
  const divisions = divisionsFor(source);
  const barTicks = (divisions * 4 * time.beats) / time.unit;
  const written = writtenBars(source);
  let key: Key | null = null;
  let repeating = 0;
  const measures = written.map(({ bar, section, heading }, index) => {
    const wanted: Key | null = section.key ?? source.key;
    const changesKey = wanted !== null && (key?.tonic !== wanted.tonic || key.mode !== wanted.mode);
    if (changesKey) key = wanted;
    const same = bar.content.kind === 'repeat' ? bar.content.bars : 0;
    const style = measureRepeat(repeating, same);
    repeating = same;
    const attributes = [
      ...(index === 0 ? [element('divisions', {}, divisions)] : []),
      ...(changesKey && wanted ? [keyNode(wanted)] : []),
      ...(index === 0 ? [timeNode(time), clefNode('G', 2)] : []),
      ...style,
    ];
    const content =
      bar.content.kind === 'repeat'
        ? [rest(barTicks)]
        : bar.content.slots.flatMap(({ chord, shares }) => [
            harmony(chord),
            rest(
              (barTicks * shares) / sharesOf(bar.content.kind === 'slots' ? bar.content.slots : []),
            ),
          ]);
    return element(
      'measure',
      { number: index + 1 },
      ...leftBarline(bar),
      ...(attributes.length > 0 ? [element('attributes', {}, ...attributes)] : []),
      ...(index === 0 && source.tempo !== null ? [tempoNode(source.tempo, time.unit)] : []),
      ...(index === 0 && source.feel !== null ? [wordsNode(source.feel)] : []),
      ...(heading === null ? [] : [directionNode(element('rehearsal', {}, heading))]),
      ...content,
      ...rightBarline(bar, endingThatStops(written, index), index === written.length - 1),
    );
  });
  const fields = (['feel', 'idiom'] as const).flatMap((name) => {
    const said = source[name];
    return said === null ? [] : [element('miscellaneous-field', { name }, said)];
  });
  return writeScore(source.title, [{ name: 'Chords', measures }], fields);
}

/** `%` and `%%` as the signs of repeated measures, from where they start to where they stop. */
function measureRepeat(before: number, now: number): readonly XmlNode[] {
  if (before === now) return [];
  const sign = (bars: number, type: 'start' | 'stop') =>
    element(
      'measure-style',
      {},
      element('measure-repeat', { type }, ...(type === 'start' ? [bars] : [])),
    );
  return [...(before > 0 ? [sign(before, 'stop')] : []), ...(now > 0 ? [sign(now, 'start')] : [])];
}
