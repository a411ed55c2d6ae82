/** Reads what repeats: signs, counts, endings, and the names of sections. */
import type { Token } from './lexer';
import { complain, endBar, type Reader } from './reader';
import { type Bar, CHART_LIMITS } from './syntax';

/** Reads “:|”. */
export function closeRepeat(reader: Reader, token: Token): void {
  endBar(reader);
  const bars = reader.sections.at(-1)?.bars;
  const last = bars?.at(-1);
  if (!bars || !last) {
    complain(reader, token, token.text, 'A repeat ends here, but no bar comes before it.');
    return;
  }
  bars[bars.length - 1] = { ...last, closesRepeat: 2 };
  if (token.text.endsWith(':')) reader.opensNext = true;
}

/** Reads how often something is repeated: “x3” after a repeat or after a section's name. */
export function countRepeats(reader: Reader, token: Token, previous: Token | undefined): void {
  const count = Number(token.text.slice(1));
  if (count < 1 || count > CHART_LIMITS.repeats) {
    const message = `A repeat count is between 1 and ${CHART_LIMITS.repeats}.`;
    complain(reader, token, token.text, message);
    return;
  }
  const section = reader.sections.at(-1);
  const last = section?.bars.at(-1);
  if (previous?.kind === 'close-repeat' && section && last) {
    section.bars[section.bars.length - 1] = { ...last, closesRepeat: count };
  } else if (previous?.kind === 'bracket' && section && section.bars.length === 0) {
    section.repeats = count;
  } else {
    complain(
      reader,
      token,
      token.text,
      `“${token.text}” counts repeats: it stands after “:|” or after a section’s name.`,
    );
  }
}

function readEndings(text: string): readonly number[] | null {
  if (!/^\d+(?:\s*[,-]\s*\d+)*$/u.test(text)) return null;
  const endings = text.split(',').flatMap((part) => {
    const [from = 0, to = from] = part.split('-').map(Number);
    return to - from > CHART_LIMITS.repeats
      ? []
      : Array.from({ length: to - from + 1 }, (_, index) => from + index);
  });
  const sensible = endings.every((ending) => ending >= 1 && ending <= CHART_LIMITS.repeats);
  return sensible && endings.length > 0 ? endings : null;
}

/** Reads “[A]” or “[1,2]”: the name of a section, or endings. */
export function readBracket(reader: Reader, token: Token, startsLine: boolean): void {
  if (!token.text.endsWith(']')) {
    complain(reader, token, token.text, 'This bracket is not closed: write [A] or [1].');
    return;
  }
  const name = token.text.slice(1, -1).trim();
  if (/^[\d\s,-]+$/u.test(name)) {
    const endings = readEndings(name);
    if (endings === null) {
      complain(reader, token, token.text, `“${token.text}” is not an ending: write [1] or [1,2].`);
    } else if (reader.bar !== null) {
      complain(reader, token, token.text, 'An ending begins at a bar line, before its chords.');
    } else {
      reader.endingsNext = endings;
    }
    return;
  }
  if (!startsLine) {
    complain(reader, token, token.text, 'A section’s name stands at the start of a line.');
    return;
  }
  if (name === '') {
    complain(reader, token, token.text, 'A section needs a name between its brackets.');
    return;
  }
  endBar(reader);
  const { from, to, line, column } = token;
  const place = { from, to, line, column };
  reader.sections.push({ name, repeats: 1, key: null, bars: [], place });
}

/** Complains of repeats and endings that the text leaves open. */
export function checkRepeats(reader: Reader): void {
  for (const section of reader.sections) {
    let open: Bar | null = null;
    for (const bar of section.bars) {
      if (bar.opensRepeat && open) break;
      if (bar.opensRepeat) open = bar;
      if (bar.closesRepeat !== null) open = null;
    }
    const message = 'This repeat is never closed: end it with “:|”.';
    if (open) complain(reader, open.place, '|:', message);
  }
  if (reader.opensNext || reader.endingsNext.length > 0) {
    const last = reader.sections.at(-1);
    const place = last?.bars.at(-1)?.place ?? last?.place;
    if (place)
      complain(reader, place, '', 'A repeat or an ending begins here, but no bar follows.');
  }
}
