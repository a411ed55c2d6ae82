/**
 * A MusicXML score as chart text: the chord symbols of the part that has most of them, with the
 * bars, repeats, endings, keys, time and tempo around them. What a chart cannot hold is told in
 * remarks, never dropped in silence.
 */
import { TEMPO_RANGE } from '../../../time/tempo';
import { readChart } from '../../../chart/form';
import {
  emptyBar,
  rowOf,
  type SheetBar,
  type SheetSlot,
  writeLeadSheet,
} from '../../../chart/leadSheet';
import { CHART_LIMITS, IDIOMS } from '../../../chart/syntax';
import { type Key, writeKey } from '../../../keys/keys';
import { greatestDivisor } from '../../../lists';
import { repeatSpans } from './repeats';
import type { Refusal } from '../../result';
import { isCompressed, unpackScore } from '../../musicxml/compressed';
import { decodeText } from '../../../text';
import { childNamed, childrenNamed, type XmlElement, readXml, textAt } from '../../musicxml/xml';
import { type ReadBar, type Reader, readMeasure } from './measures';

type ImportResult =
  { readonly ok: true; readonly text: string; readonly remarks: readonly string[] } | Refusal;

const MOST_SHARES = 32;

/** The chords of a measure as slots; what sounds on from before fills its beginning. */
function slotsOf(reader: Reader, measure: ReadBar, before: string): readonly SheetSlot[] {
  const { chords, ticks, number } = measure;
  const inside = chords.filter(({ at }) => at < ticks);
  const first = inside[0];
  const placed = first && first.at === 0 ? inside : [{ at: 0, text: before }, ...inside];
  // Of several symbols at one moment the last is meant.
  const distinct = placed.filter(({ at }, index) => placed[index + 1]?.at !== at);
  const lengths = distinct.map(({ at }, index) => (distinct[index + 1]?.at ?? ticks) - at);
  const unit = lengths.reduce(greatestDivisor, 0) || 1;
  const shares = lengths.map((length) => length / unit);
  const total = shares.reduce((sum, share) => sum + share, 0);
  if (total > MOST_SHARES || shares.some((share) => !Number.isInteger(share))) {
    reader.remarks.add(
      `The chords of bar ${number} are set at odd moments; they share it equally.`,
    );
    return distinct.map(({ text }) => ({ text, shares: 1 }));
  }
  return distinct.map(({ text }, index) => ({ text, shares: shares[index] ?? 1 }));
}

interface Part {
  readonly measures: readonly XmlElement[];
  readonly chords: number;
}

/** The parts of a score in either arrangement, by part or by measure. */
function partsOf(root: XmlElement): readonly Part[] {
  const byPart = new Map<string, XmlElement[]>();
  if (root.name === 'score-timewise') {
    for (const measure of childrenNamed(root, 'measure')) {
      for (const part of childrenNamed(measure, 'part')) {
        const id = part.attributes['id'] ?? '';
        byPart.set(id, [...(byPart.get(id) ?? []), { ...measure, children: part.children }]);
      }
    }
  } else {
    childrenNamed(root, 'part').forEach((part, index) => {
      byPart.set(`${index}`, [...childrenNamed(part, 'measure')]);
    });
  }
  return [...byPart.values()].map((measures) => ({
    measures,
    chords: measures.reduce((sum, one) => sum + childrenNamed(one, 'harmony').length, 0),
  }));
}

const sameKey = (a: Key | null, b: Key | null): boolean =>
  a?.tonic === b?.tonic && a?.mode === b?.mode;

const SECTION_NAMES = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

/** Letters, digits and spaces of a heading, as a section's name may hold them. */
function sectionName(heading: string, used: ReadonlySet<string>): string {
  const name = heading
    .replace(/[[\]|/#]/gu, ' ')
    .replace(/\s+/gu, ' ')
    .trim()
    .slice(0, 40);
  // A bare number would read as an ending.
  if (name !== '' && !/^[\d\s,-]+$/u.test(name)) return name;
  if (name !== '') return `Part ${name}`;
  return SECTION_NAMES.find((letter) => !used.has(letter)) ?? 'Next';
}

/** Sections do not part a repeat: headings inside one are told of and left out. */
function withoutParting(reader: Reader, measures: readonly ReadBar[]): readonly ReadBar[] {
  const spans = repeatSpans(measures);
  return measures.map((measure, index) => {
    const span = spans.find(({ start, end }) => start <= index && index <= end);
    // A repeat that nothing closes is none.
    if (!span) return measure.opensRepeat ? { ...measure, opensRepeat: false } : measure;
    const opensRepeat = index === span.start;
    if (opensRepeat || measure.heading === null) return { ...measure, opensRepeat };
    reader.remarks.add(`The heading “${measure.heading}” stands inside a repeat and was left out.`);
    return { ...measure, opensRepeat, heading: null };
  });
}

/** Bars inside a repeat, its first left out, where no section can begin. */
const insideRepeats = (measures: readonly ReadBar[]): ReadonlySet<number> =>
  new Set(
    repeatSpans(measures).flatMap(({ start, end }) =>
      Array.from({ length: end - start }, (_, offset) => start + 1 + offset),
    ),
  );

interface Line {
  readonly name: string | null;
  readonly key: Key | null;
  readonly bars: SheetBar[];
}

function sheetLines(
  reader: Reader,
  measures: readonly ReadBar[],
  home: Key | null,
): readonly Line[] {
  const lines: Line[] = [];
  const used = new Set<string>();
  let key = home;
  let sounding = 'N.C.';
  let inPair = false;
  const inside = insideRepeats(measures);
  for (const [index, measure] of measures.entries()) {
    const changes = measure.key !== null && !sameKey(measure.key, key);
    if (measure.key !== null) key = measure.key;
    const parts = measure.heading !== null || (changes && !inside.has(index));
    if (parts || lines.length === 0) {
      const plain = measure.heading === null && !changes;
      const name = plain ? null : sectionName(measure.heading ?? '', used);
      if (name !== null) used.add(name);
      lines.push({ name, key: sameKey(key, home) ? null : key, bars: [] });
    }
    const line = lines.at(-1);
    if (!line) continue;
    const { opensRepeat, closesRepeat, endings } = measure;
    if (measure.same === 2 && inPair) {
      inPair = false;
      const last = line.bars.pop();
      if (last) line.bars.push({ ...last, closesRepeat });
      continue;
    }
    inPair = measure.same === 2;
    const marks = { opensRepeat, closesRepeat, endings };
    if (measure.same > 0) {
      line.bars.push({ slots: [], same: measure.same === 2 ? 2 : 1, ...marks });
      continue;
    }
    const slots = slotsOf(reader, measure, sounding);
    sounding = slots.at(-1)?.text ?? sounding;
    line.bars.push({ ...emptyBar(slots), ...marks });
  }
  return lines;
}

const BARS_A_LINE = 4;

function writeLines(lines: readonly Line[]): string {
  const rows = lines.flatMap(({ name, key, bars }) => {
    const heading =
      name === null ? [] : [rowOf([], { name, repeats: 1, key: key ? writeKey(key) : null })];
    const count = Math.ceil(bars.length / BARS_A_LINE);
    return [
      ...heading,
      ...Array.from({ length: count }, (_, row) =>
        rowOf(bars.slice(row * BARS_A_LINE, (row + 1) * BARS_A_LINE)),
      ),
    ];
  });
  return writeLeadSheet({ lines: rows });
}

function headersOf(reader: Reader, root: XmlElement, home: Key | null): readonly string[] {
  const title = textAt(root, 'work', 'work-title') || textAt(root, 'movement-title');
  const fields = childrenNamed(
    childNamed(childNamed(root, 'identification') ?? root, 'miscellaneous') ?? root,
    'miscellaneous-field',
  );
  const said = (name: string) =>
    fields.find(({ attributes }) => attributes['name'] === name)?.text ?? null;
  const feel = said('feel') ?? reader.feel;
  const idiom = IDIOMS.find((name) => name === said('idiom'));
  const tidy = (text: string) =>
    text
      .replace(/\s+/gu, ' ')
      .replace(/\/{2,}/gu, '/')
      .trim();
  const inRange = (tempo: number) => tempo >= TEMPO_RANGE.low && tempo <= TEMPO_RANGE.high;
  const tempo = reader.tempo !== null && inRange(reader.tempo) ? reader.tempo : null;
  return [
    ...(title === '' ? [] : [`title: ${tidy(title).slice(0, 200)}`]),
    ...(home === null ? [] : [`key: ${writeKey(home)}`]),
    `time: ${reader.beats}/${reader.unit}`,
    ...(tempo === null ? [] : [`tempo: ${Math.round(tempo * 100) / 100}`]),
    ...(feel ? [`feel: ${tidy(feel).slice(0, 60)}`] : []),
    ...(idiom ? [`idiom: ${idiom}`] : []),
  ];
}

const WITHOUT_REPEATS = { opensRepeat: false, closesRepeat: null, endings: [], same: 0 } as const;

/** Reads a score as chart text. */
export function readMusicXml(xml: string): ImportResult {
  const parsed = readXml(xml);
  if (!parsed.ok) return parsed;
  const { root } = parsed;
  if (root.name !== 'score-partwise' && root.name !== 'score-timewise') {
    return { ok: false, message: `This is XML, but no MusicXML score: it holds “${root.name}”.` };
  }
  const best = partsOf(root).reduce<Part | null>(
    (most, part) => (most === null || part.chords > most.chords ? part : most),
    null,
  );
  if (!best || best.measures.length === 0) {
    return { ok: false, message: 'This score holds no measures.' };
  }
  if (best.chords === 0) {
    return { ok: false, message: 'This score holds no chord symbols to make a chart of.' };
  }
  if (best.measures.length > CHART_LIMITS.bars) {
    return { ok: false, message: `A chart holds at most ${CHART_LIMITS.bars} bars.` };
  }
  const reader: Reader = {
    remarks: new Set(),
    divisions: 1,
    beats: 4,
    unit: 4,
    timeSeen: false,
    tempo: null,
    feel: null,
    same: 0,
  };
  const all = best.measures.map((measure) => readMeasure(reader, measure));
  const [opening] = all;
  const skipped = opening && opening.pickup && opening.chords.length === 0 && all.length > 1;
  const measures = skipped ? all.slice(1) : all;
  if (skipped)
    reader.remarks.add('The pick-up before the first bar was left out: it has no chord.');
  const home = opening?.key ?? measures[0]?.key ?? null;
  const headers = headersOf(reader, root, home);
  const textOf = (played: readonly ReadBar[]): string => {
    const bars = writeLines(sheetLines(reader, withoutParting(reader, played), home));
    return `${[...headers, bars].join('\n')}\n`;
  };
  let text = textOf(measures);
  if (!readChart(text).ok) {
    reader.remarks.add('Its repeats and endings do not fit together; the bars are kept in a row.');
    text = textOf(measures.map((one) => ({ ...one, ...WITHOUT_REPEATS })));
  }
  return { ok: true, text, remarks: [...reader.remarks] };
}

/** Reads a MusicXML file, plain or compressed. */
export function readMusicXmlFile(bytes: Uint8Array): ImportResult {
  if (!isCompressed(bytes)) return readMusicXml(decodeText(bytes));
  const unpacked = unpackScore(bytes);
  return unpacked.ok ? readMusicXml(unpacked.text) : unpacked;
}
