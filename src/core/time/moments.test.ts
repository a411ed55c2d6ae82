import fc from 'fast-check';
import { expect, test } from 'vitest';
import { timeOf } from './moments';

const OFFSETS = ['Z', '+02:00', '-07:00', '+05:45', '-03:30', '+1400'];

test('moments are read as the language reads them', () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date('1600-01-01'), max: new Date('2400-01-01'), noInvalidDate: true }),
      fc.constantFrom(...OFFSETS),
      (date, offset) => {
        const written = date.toISOString().replace('Z', offset);
        const plain = offset === '+1400' ? written.replace('+1400', '+14:00') : written;
        expect(timeOf(written)).toBeCloseTo(Date.parse(plain), 3);
      },
    ),
  );
});

test.each(['', '2026-06-15', '2026-06-15T18:00', 'yesterday', '2026-06-15T18:00:00'])(
  '“%s” is no moment with an offset',
  (text) => {
    expect(timeOf(text)).toBeNaN();
  },
);
