/** A chart as a tune in ABC 2.1: its chords over invisible rests, with repeats, endings and parts. */
import type { ChartSource } from '../../../chart/syntax';
import type { Key, KeyMode } from '../../../keys/keys';
import { greatestDivisor } from '../../../lists';
import { noteName } from '../../../notes/notes';
import type { Written } from '../../result';
import { inRows, sharesOf, type WrittenBar, writtenBars } from '../written';

const MODES: Readonly<Record<KeyMode, string>> = {
  major: '',
  minor: 'm',
  dorian: 'Dor',
  phrygian: 'Phr',
  lydian: 'Lyd',
  mixolydian: 'Mix',
  locrian: 'Loc',
};

const keyText = (key: Key | null): string =>
  key === null ? 'none' : `${noteName(key.tonic)}${MODES[key.mode]}`;

/** A length in the tune's unit, as a fraction in its lowest terms. */
function lengthText(over: number, under: number): string {
  const divisor = greatestDivisor(over, under);
  const [top, bottom] = [over / divisor, under / divisor];
  return bottom === 1 ? (top === 1 ? '' : String(top)) : `${top}/${bottom}`;
}

const BARS_A_LINE = 4;
const LINE = /[\r\n]+/gu;

/** Writes a chart; tells what ABC has no sign for. */
export function writeAbc(source: ChartSource): Written<string> {
  const { title, key, time, tempo, feel } = source;
  const remarks = new Set<string>();
  const music = (written: WrittenBar): string => {
    const { slots, bar, begins, ends } = written;
    const total = Math.max(1, sharesOf(slots));
    const chords = slots
      .map(
        ({ chord, shares }) =>
          `"${chord?.symbol ?? 'N.C.'}"x${lengthText(time.beats * shares, total)}`,
      )
      .join(' ');
    const times = bar.closesRepeat ?? (ends > 1 ? ends : null);
    if (times !== null && times > 2)
      remarks.add(`A repeat that is played ${times} times is written as “x${times}” over its end.`);
    const open = bar.opensRepeat || begins > 1 ? '|: ' : '';
    const ending = bar.endings.length > 0 ? `[${bar.endings.join(',')} ` : '';
    const close = times === null ? '|' : `${times > 2 ? `"^x${times}"y ` : ''}:|`;
    return `${open}${ending}${chords} ${close}`;
  };
  const rows = inRows(writtenBars(source), BARS_A_LINE).flatMap((row) => {
    const section = row[0]?.section;
    return [
      ...(section?.name ? [`P:${section.name}`] : []),
      ...(section?.key ? [`K:${keyText(section.key)}`] : []),
      row.map(music).join(' '),
    ];
  });
  const content = [
    'X:1',
    `T:${(title || 'Untitled').replace(LINE, ' ')}`,
    ...(feel ? [`R:${feel.replace(LINE, ' ')}`] : []),
    `M:${time.beats}/${time.unit}`,
    `L:1/${time.unit}`,
    ...(tempo === null ? [] : [`Q:1/${time.unit}=${Math.round(tempo)}`]),
    `K:${keyText(key)}`,
    ...rows,
  ].join('\n');
  return { content: `${content}\n`, remarks: [...remarks] };
}
