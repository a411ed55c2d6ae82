/**
 * A MusicXML score as chart text: the chord symbols of the part that has most of them, with the
 * bars, repeats, endings, keys, time and tempo around them. What a chart cannot hold is told in
 * remarks, never dropped in silence.
 */
import { type PlayedChord, readChart } from '../../../chart/form';
import { CHART_LIMITS, IDIOMS } from '../../../chart/syntax';
import { readHarmony } from '../../../harmony/reading';
import { type Key, keyName, keyScale, signatureOf } from '../../../keys/keys';
import { triadOf } from '../../../neck/voicings';
import { pitchClass, transpose } from '../../../notes/notes';
import type { Refusal } from '../../result';
import { isCompressed, unpackScore } from '../../musicxml/compressed';
import { decodeText } from '../../../text';
import { childNamed, childrenNamed, type XmlElement, readXml, textAt } from '../../musicxml/xml';
import { chartText, type SheetHeaders } from '../bars';
import { type Reader, readMeasure } from './measures';

type ImportResult =
  { readonly ok: true; readonly text: string; readonly remarks: readonly string[] } | Refusal;

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

function headersOf(reader: Reader, root: XmlElement, key: Key | null): SheetHeaders {
  const title = textAt(root, 'work', 'work-title') || textAt(root, 'movement-title');
  const fields = childrenNamed(
    childNamed(childNamed(root, 'identification') ?? root, 'miscellaneous') ?? root,
    'miscellaneous-field',
  );
  const said = (name: string) =>
    fields.find(({ attributes }) => attributes['name'] === name)?.text ?? null;
  const { beats, unit, tempo } = reader;
  return {
    title,
    key,
    beats,
    unit,
    tempo,
    feel: said('feel') ?? reader.feel,
    idiom: IDIOMS.find((name) => name === said('idiom')) ?? null,
  };
}

/** Chords that must lie in a key, or outside it, for it to be believed, or not. */
const BELIEVED = 0.6;

/** The share of a chart's chords whose root and third lie in a key. */
function shareIn(chords: readonly PlayedChord[], key: Key): number {
  const scale = new Set(keyScale(key).map((one) => pitchClass(transpose(key.tonic, one))));
  const inside = chords.filter(({ chord }) =>
    triadOf(chord).every((note) => scale.has(pitchClass(note))),
  );
  return inside.length / Math.max(1, chords.length);
}

/** The key the chords speak for where a score has no signs at all and they contradict that; else null. */
function keyMeant(text: string, home: Key | null): Key | null {
  if (home === null || signatureOf(home) !== 0) return null;
  const read = readChart(text.replace(/^key: .*\n/mu, ''));
  if (!read.ok || read.chart.chords.length < 4) return null;
  const { key } = readHarmony(read.chart).key;
  if (key === null || signatureOf(key) === 0) return null;
  const { chords } = read.chart;
  return shareIn(chords, home) < BELIEVED && shareIn(chords, key) > shareIn(chords, home)
    ? key
    : null;
}

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
  const written = chartText(reader.remarks, measures, headers);
  const meant = keyMeant(written, home);
  if (meant === null || home === null)
    return { ok: true, text: written, remarks: [...reader.remarks] };
  reader.remarks.add(
    `The score says ${keyName(home)}, as programs do where nobody set a key. Its chords are in ${keyName(meant)}: that is written instead.`,
  );
  const text = chartText(reader.remarks, measures, { ...headers, key: meant });
  return { ok: true, text, remarks: [...reader.remarks] };
}

/** Reads a MusicXML file, plain or compressed. */
export function readMusicXmlFile(bytes: Uint8Array): ImportResult {
  if (!isCompressed(bytes)) return readMusicXml(decodeText(bytes));
  const unpacked = unpackScore(bytes);
  return unpacked.ok ? readMusicXml(unpacked.text) : unpacked;
}
