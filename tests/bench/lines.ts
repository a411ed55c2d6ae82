/** What lines of every style measure, beside what solos do. */
import { FIGURES } from '$core/lines/portrait';
import { LINE_STYLES } from '$core/lines/styles';
import { linesOf, meansOf } from '../lines';
import type { Figure } from './report';

/** Lines a style, over all its charts, in every key, zone and note value in turn. */
const LINES = 30;

export function* lineFigures(): Generator<Figure> {
  for (const style of LINE_STYLES) {
    const means = meansOf(linesOf(style, LINES));
    for (const [name, [least, most]] of Object.entries(FIGURES[style])) {
      const value = means[name] ?? Number.NaN;
      const bound = value < least ? { least } : { most };
      yield { what: `lines, ${style}: ${name} (${least} to ${most})`, value, unit: '', ...bound };
    }
    const late = means['late peaks'] ?? Number.NaN;
    yield {
      what: `lines, ${style}: highest past the first third`,
      value: late,
      unit: '',
      least: 0.66,
    };
  }
}
