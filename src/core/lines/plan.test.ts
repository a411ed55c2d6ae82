import { describe, expect, test } from 'vitest';
import { seeded } from '../random';
import { invertMotif, fragmentOf } from './motif';
import { planLine, planWords } from './plan';
import { type LineStyle, STYLE_ROWS } from './styles';
import { BEAT } from '../time/units';
import { lineMetre } from './rhythm';

const METRE = lineMetre({ beats: 4, unit: 4 }, 'eighths');
const plan = (seed: number, end = 32, calls = false, style: LineStyle = 'bop') =>
  planLine(
    { metre: METRE, style: STYLE_ROWS[style], end: end * BEAT, changes: [], motif: null, calls },
    seeded(seed),
  );

describe('the plan of a line', () => {
  test('fills the form with phrases of two to four bars that breathe between them', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { phrases } = plan(seed);
      expect(phrases[0]?.bars.first).toBe(0);
      expect(phrases.at(-1)?.bars.last).toBe(7);
      phrases.slice(1).forEach((phrase, index) => {
        const before = phrases[index];
        expect(phrase.bars.first).toBe((before?.bars.last ?? 0) + 1);
        expect(phrase.from - (before?.to ?? 0)).toBeGreaterThanOrEqual(BEAT);
      });
      for (const { bars, from, close, to } of phrases) {
        expect(bars.last - bars.first).toBeGreaterThanOrEqual(1);
        expect(bars.last - bars.first).toBeLessThanOrEqual(3);
        expect(close).toBeGreaterThanOrEqual(from);
        expect(to).toBeGreaterThan(close);
      }
    }
  });

  test('has one climax past the first third, and says more toward the end', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { phrases } = plan(seed, 64);
      const tops = phrases.filter(({ climax }) => climax);
      expect(tops).toHaveLength(1);
      expect(tops[0]?.from).toBeGreaterThan((64 * BEAT) / 3);
      for (const { level, climax } of phrases) expect(level === 1).toBe(climax);
      const [first, last] = [phrases[0], phrases.at(-1)];
      expect(last?.density).toBeGreaterThan(first?.density ?? 1);
    }
  });

  test('begins off beat one far more often than on it', () => {
    const starts = Array.from({ length: 40 }, (_, seed) => plan(seed + 1, 64).phrases).flat();
    const onOne = starts.filter(({ from }) => from % (4 * BEAT) === 0).length;
    expect(onOne / starts.length).toBeLessThan(0.15);
  });

  test('begins with its idea, and takes it up again at once', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const [first, second] = plan(seed).phrases;
      expect(first?.role).toBe('statement');
      expect(['answer', 'repeat', 'sequence']).toContain(second?.role);
    }
  });

  test('calls leave every second pair of bars free', () => {
    for (const { bars } of plan(3, 64, true).phrases) expect(bars.first % 4).toBe(0);
  });

  test('is said in words, with how far each phrase lies from the first', () => {
    const { motif } = plan(1);
    const phrase = {
      from: 0,
      close: 6 * BEAT,
      to: 7 * BEAT,
      level: 0.5,
      density: 0.5,
      climax: false,
    };
    const phrases = [
      { ...phrase, role: 'statement', ending: 'open', bars: { first: 0, last: 1 } },
      { ...phrase, role: 'answer', ending: 'closed', bars: { first: 2, last: 3 } },
      { ...phrase, role: 'free', ending: 'closed', bars: { first: 4, last: 4 } },
    ] as const;
    expect(planWords({ motif, phrases }, [0, -2, 3])).toEqual([
      'Call in bars 1–2',
      'answer in bars 3–4, a third lower',
      'something else in bar 5',
    ]);
  });
});

describe('a motif', () => {
  test('turned over it falls where it rose; cut, its beginning stays', () => {
    const motif = { onsets: [0, 0.5, 1, 1.5, 2], last: 1, steps: [1, 2, -1, 1] };
    expect(invertMotif(motif).steps).toEqual([-1, -2, 1, -1]);
    expect(fragmentOf(motif)).toMatchObject({ onsets: [0, 0.5, 1], steps: [1, 2] });
  });
});
