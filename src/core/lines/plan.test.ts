import { describe, expect, test } from 'vitest';
import { seeded } from '../random';
import { invertMotif, fragmentOf } from './motif';
import { planLine, planWords } from './plan';

const METRE = { bar: 4, per: 2, triplets: true };
const plan = (seed: number, end = 32, calls = false) =>
  planLine({ metre: METRE, end, motif: null, calls }, seeded(seed));

describe('the plan of a line', () => {
  test('fills the form with phrases of one to three bars that breathe between them', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { phrases } = plan(seed);
      expect(phrases[0]?.bars.first).toBe(0);
      expect(phrases.at(-1)?.bars.last).toBe(7);
      phrases.slice(1).forEach((phrase, index) => {
        const before = phrases[index];
        expect(phrase.bars.first).toBe((before?.bars.last ?? 0) + 1);
        expect(phrase.from - (before?.to ?? 0)).toBeGreaterThanOrEqual(0.5);
        expect(phrase.bars.last - phrase.bars.first).toBeLessThan(3);
      });
    }
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
    const phrase = { from: 0, to: 7, entry: 0, over: false };
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
