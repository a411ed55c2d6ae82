/** The measures of a score: their chord symbols, with the repeats, endings, keys, time and tempo around them. */
import { CHART_LIMITS } from '../../../chart/syntax';
import { parseChord } from '../../../chords/symbols';
import { type Key, KEY_MODES, type KeyMode, keyOfSignature } from '../../../keys/keys';
import { noteFromLetter, noteName, type Note } from '../../../notes/notes';
import { type KindDegree, sameSound, suffixOf } from '../../musicxml/kinds';
import { childNamed, childrenNamed, type XmlElement, textAt } from '../../musicxml/xml';
import type { Placed, ReadBar } from '../bars';

/** What is known so far of the part that is read. */
export interface Reader {
  readonly remarks: Set<string>;
  divisions: number;
  beats: number;
  unit: number;
  timeSeen: boolean;
  tempo: number | null;
  feel: string | null;
  same: number;
}

const numberIn = (text: string): number | null => {
  const value = Number(text);
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
};

function pitchOf(parent: XmlElement | undefined, name: string): Note | null {
  const letter = textAt(parent, `${name}-step`).toUpperCase();
  if (!/^[A-G]$/u.test(letter)) return null;
  const alter = Math.round(numberIn(textAt(parent, `${name}-alter`)) ?? 0);
  return Math.abs(alter) > 2 ? null : noteFromLetter(letter, alter);
}

function degreesOf(harmony: XmlElement): readonly KindDegree[] {
  return childrenNamed(harmony, 'degree').flatMap((degree) => {
    const value = numberIn(textAt(degree, 'degree-value'));
    const type = textAt(degree, 'degree-type');
    const alter = Math.round(numberIn(textAt(degree, 'degree-alter')) ?? 0);
    const known = type === 'add' || type === 'alter' || type === 'subtract';
    return value === null || !known ? [] : [{ value, alter, type }];
  });
}

/** The chord symbol of a `harmony`: its own wording where that says the same chord. */
function symbolOf(reader: Reader, harmony: XmlElement, measure: string): string | null {
  const kind = childNamed(harmony, 'kind');
  if (kind?.text === 'none') return 'N.C.';
  const root = pitchOf(childNamed(harmony, 'root'), 'root');
  if (root === null) {
    const shown = textAt(harmony, 'function') || textAt(harmony, 'numeral', 'numeral-root');
    const named = shown === '' ? 'A chord symbol' : `“${shown}”`;
    reader.remarks.add(`${named} in bar ${measure} names no root and was left out.`);
    return null;
  }
  const bass = pitchOf(childNamed(harmony, 'bass'), 'bass');
  const slash = bass === null || bass === root ? '' : `/${noteName(bass)}`;
  const wording = (kind?.attributes['text'] ?? '').replace(/\s+/gu, '');
  const meant = suffixOf({ kind: kind?.text ?? '', degrees: degreesOf(harmony) });
  const worded = parseChord(noteName(root) + wording);
  const read = meant === null ? null : parseChord(noteName(root) + meant);
  const same = worded !== null && (read === null || sameSound(worded, read));
  if (same && (wording !== '' || meant === '' || read === null)) {
    return noteName(root) + wording + slash;
  }
  if (read) return read.symbol + slash;
  reader.remarks.add(
    `“${noteName(root)} ${kind?.text ?? ''}” in bar ${measure} is no chord Corvel spells; its root is kept.`,
  );
  return noteName(root) + slash;
}

function keyOf(node: XmlElement): Key | null {
  const fifths = numberIn(textAt(node, 'fifths'));
  if (fifths === null || Math.abs(fifths) > 7) return null;
  const named: Readonly<Record<string, KeyMode>> = {
    '': 'major',
    ionian: 'major',
    aeolian: 'minor',
  };
  const mode = textAt(node, 'mode').toLowerCase();
  const found = KEY_MODES.find((known) => known === mode) ?? named[mode];
  return keyOfSignature(Math.round(fifths), found ?? 'major');
}

function readAttributes(reader: Reader, node: XmlElement, number: string): Key | null {
  const divisions = numberIn(textAt(node, 'divisions'));
  if (divisions !== null && divisions > 0) reader.divisions = divisions;
  const time = childNamed(node, 'time');
  const beats = numberIn(textAt(time, 'beats'));
  const unit = numberIn(textAt(time, 'beat-type'));
  if (time && beats !== null && unit !== null) {
    if (reader.timeSeen && (beats !== reader.beats || unit !== reader.unit)) {
      reader.remarks.add(
        `Bar ${number} changes to ${beats}/${unit}; a chart has one time signature, so its bars are kept at ${reader.beats}/${reader.unit}.`,
      );
    } else if (!reader.timeSeen) {
      reader.beats = beats;
      reader.unit = unit;
      reader.timeSeen = true;
    }
  }
  for (const style of childrenNamed(node, 'measure-style')) {
    const sign = childNamed(style, 'measure-repeat');
    if (!sign) continue;
    const bars = numberIn(sign.text) ?? 1;
    reader.same = sign.attributes['type'] === 'start' ? (bars === 2 ? 2 : 1) : 0;
  }
  const key = childNamed(node, 'key');
  return key ? keyOf(key) : null;
}

const JUMPS = /\b(?:D\.?\s?[CS]\.?|da capo|dal segno|to coda|segno|coda|fine)\b/iu;
const FEELS = /\b(?:swing|shuffle|straight|ballad|bossa|samba|waltz|funk|rock|latin|swung)\b/iu;

function readDirection(reader: Reader, node: XmlElement, number: string): string | null {
  const sound = childNamed(node, 'sound');
  const stated = numberIn(sound?.attributes['tempo'] ?? '');
  let heading: string | null = null;
  for (const type of childrenNamed(node, 'direction-type')) {
    const rehearsal = textAt(type, 'rehearsal');
    if (rehearsal !== '') heading = rehearsal;
    const perMinute = numberIn(textAt(type, 'metronome', 'per-minute'));
    if (perMinute !== null && reader.tempo === null) reader.tempo = perMinute;
    for (const words of childrenNamed(type, 'words')) {
      if (JUMPS.test(words.text)) jump(reader, words.text, number);
      else if (reader.feel === null && FEELS.test(words.text)) reader.feel = words.text;
    }
    for (const sign of ['segno', 'coda']) if (childNamed(type, sign)) jump(reader, sign, number);
  }
  if (stated !== null && reader.tempo === null) reader.tempo = stated;
  return heading;
}

const jump = (reader: Reader, words: string, number: string) =>
  reader.remarks.add(
    `“${words}” at bar ${number} is not followed: a chart has repeats and endings, so write the form out.`,
  );

function endingNumbers(text: string): readonly number[] {
  return [...text.matchAll(/\d+/gu)]
    .map(([digits]) => Number(digits))
    .filter((ending) => ending >= 1 && ending <= CHART_LIMITS.repeats);
}

/** The bar of a `measure` element; what it changes stays with the reader. */
export function readMeasure(reader: Reader, node: XmlElement): ReadBar {
  const number = node.attributes['number'] ?? '?';
  const chords: Placed[] = [];
  let key: Key | null = null;
  let heading: string | null = null;
  let opensRepeat = false;
  let closesRepeat: number | null = null;
  let endings: readonly number[] = [];
  let now = 0;
  let furthest = 0;
  for (const child of node.children) {
    const duration = numberIn(textAt(child, 'duration')) ?? 0;
    switch (child.name) {
      case 'attributes':
        key = readAttributes(reader, child, number) ?? key;
        break;
      case 'direction':
        heading = readDirection(reader, child, number) ?? heading;
        break;
      case 'sound': {
        const tempo = numberIn(child.attributes['tempo'] ?? '');
        if (tempo !== null) reader.tempo ??= tempo;
        break;
      }
      case 'harmony': {
        const text = symbolOf(reader, child, number);
        const offset = numberIn(textAt(child, 'offset')) ?? 0;
        if (text !== null) chords.push({ at: Math.max(0, now + offset), text });
        break;
      }
      case 'note':
        if (!childNamed(child, 'chord') && !childNamed(child, 'grace')) now += duration;
        break;
      case 'forward':
        now += duration;
        break;
      case 'backup':
        now = Math.max(0, now - duration);
        break;
      case 'barline': {
        const repeat = childNamed(child, 'repeat')?.attributes;
        const ending = childNamed(child, 'ending')?.attributes;
        if (repeat?.['direction'] === 'forward') opensRepeat = true;
        if (repeat?.['direction'] === 'backward') {
          const times = numberIn(repeat['times'] ?? '') ?? 2;
          closesRepeat = Math.max(1, Math.min(CHART_LIMITS.repeats, Math.round(times)));
        }
        if (ending?.['type'] === 'start') endings = endingNumbers(ending['number'] ?? '');
        break;
      }
    }
    furthest = Math.max(furthest, now);
  }
  const full = (reader.divisions * 4 * reader.beats) / reader.unit;
  return {
    number,
    pickup: node.attributes['implicit'] === 'yes' && furthest < full,
    ticks: furthest > 0 && reader.timeSeen === false ? furthest : full,
    chords: [...chords].sort((a, b) => a.at - b.at),
    heading,
    key,
    opensRepeat,
    closesRepeat,
    endings,
    same: reader.same,
  };
}
