/**
 * The lick book a player begins with: short lines of our own. For each kind of chord an ascending
 * and a descending line round root, third and fifth; then lines over changes in each of five zones.
 */
import type { Technique } from '../phrases/techniques';
import type { Lick } from './lick';
import type { LickNote } from './sounding';

/** Title, tags, chords, and notes as `beat beats string.fret` with `h`, `p`, `b2` or `s4` after. */
const ROWS: readonly (readonly [title: string, tags: string, chart: string, notes: string])[] = [
  [
    'Up round the root, major seventh',
    'one chord, major seventh, ascending',
    '| Cmaj7 | % |',
    '0.5 0.5 5.2; 1 0.5 5.3h; 1.5 0.5 5.5; 2 0.5 4.2; 2.5 0.5 4.5; 3 0.5 3.4; 3.5 0.5 2.3; 4 2 2.5',
  ],
  [
    'Down round the root, major seventh',
    'one chord, major seventh, descending',
    '| Amaj7 | % |',
    '0 0.5 2.2; 0.5 0.5 3.4; 1 1 3.2; 2.5 0.5 3.1; 3 0.5 4.2; 3.5 0.5 5.4; 4 1 5.2; 5 2 6.5',
  ],
  [
    'Up round the third, major seventh',
    'one chord, major seventh, ascending',
    '| Ebmaj7 | % |',
    '0 1 5.9; 1 0.5 5.10h; 1.5 0.5 4.8; 2 0.5 3.7; 2.5 0.5 2.6; 3 0.5 2.8; 3.5 1 3.8; 4.5 2 3.7',
  ],
  [
    'Down round the third, major seventh',
    'one chord, major seventh, descending',
    '| Gmaj7 | % |',
    '0 1/3 2.3; 1/3 1/3 3.4; 2/3 1/3 3.2; 1 1 4.4; 2 0.5 4.5; 2.5 0.5 5.5; 3 0.5 5.4; 3.5 2 5.2',
  ],
  [
    'Up round the fifth, major seventh',
    'one chord, major seventh, ascending',
    '| Dmaj7 | % |',
    '0 0.5 4.6; 0.5 0.5 4.7h; 1 1 3.6; 2.5 0.5 3.7; 3 0.5 2.7; 3.5 0.5 2.5; 4 1 2.6; 5 2 2.7',
  ],
  [
    'Down round the fifth, major seventh',
    'one chord, major seventh, descending',
    '| Fmaj7 | % |',
    '1.5 0.5 1.5; 2 0.5 1.3; 2.5 0.5 2.5; 3 0.5 2.6; 3.5 0.5 2.3; 4 0.5 3.4; 4.5 2 3.5',
  ],
  [
    'Up round the root, dominant seventh',
    'one chord, dominant seventh, ascending',
    '| G7 | % |',
    '0 1 6.2; 1 0.5 6.3h; 1.5 0.5 6.5; 2 0.5 5.2; 2.5 0.5 5.5; 3 0.5 4.3; 3.5 1 3.2; 4.5 2 3.4',
  ],
  [
    'Down round the root, dominant seventh',
    'one chord, dominant seventh, descending',
    '| C7 | % |',
    '0 1/3 2.5; 1/3 1/3 2.3; 2/3 1/3 3.5; 1 1 3.3; 2 0.5 4.5; 2.5 0.5 5.7; 3 0.5 5.5; 3.5 2 5.3',
  ],
  [
    'Up round the third, dominant seventh',
    'one chord, dominant seventh, ascending',
    '| A7 | % |',
    '0 0.5 5.3; 0.5 0.5 5.4h; 1 1 4.2; 2.5 0.5 4.5; 3 0.5 3.4; 3.5 0.5 2.2; 4 1 3.2; 5 2 4.5',
  ],
  [
    'Down round the third, dominant seventh',
    'one chord, dominant seventh, descending',
    '| F7 | % |',
    '1.5 0.5 1.8; 2 0.5 2.10; 2.5 0.5 2.8; 3 0.5 3.8; 3.5 0.5 3.10; 4 0.5 4.10; 4.5 1 4.8; 5.5 2 4.7',
  ],
  [
    'Up round the fifth, dominant seventh',
    'one chord, dominant seventh, ascending',
    '| D7 | % |',
    '0 1/3 4.6; 1/3 1/3 4.7h; 2/3 1/3 3.5; 1 1 3.7; 2 0.5 2.7; 2.5 0.5 2.5; 3 0.5 2.6; 3.5 2 2.7',
  ],
  [
    'Down round the fifth, dominant seventh',
    'one chord, dominant seventh, descending',
    '| Bb7 | % |',
    '0.5 0.5 2.3; 1 0.5 2.1; 1.5 0.5 3.1; 2 0.5 3.3; 2.5 0.5 4.5; 3 0.5 4.2; 3.5 2 4.3',
  ],
  [
    'Up round the root, minor seventh',
    'one chord, minor seventh, ascending',
    '| Am7 | % |',
    '0 0.5 6.4; 0.5 0.5 6.5h; 1 1 6.7; 2.5 0.5 6.8; 3 0.5 5.7; 3.5 0.5 4.5; 4 1 3.4; 5 2 3.5',
  ],
  [
    'Down round the root, minor seventh',
    'one chord, minor seventh, descending',
    '| Dm7 | % |',
    '1.5 0.5 2.6; 2 0.5 2.5; 2.5 0.5 3.7; 3 0.5 3.5; 3.5 0.5 4.7; 4 0.5 5.8; 4.5 1 5.7; 5.5 2 5.5',
  ],
  [
    'Up round the third, minor seventh',
    'one chord, minor seventh, ascending',
    '| Gm7 | % |',
    '0 1/3 6.5; 1/3 1/3 6.6h; 2/3 1/3 5.5; 1 1 4.3; 2 0.5 3.2; 2.5 0.5 3.3; 3 0.5 4.5; 3.5 2 4.3',
  ],
  [
    'Down round the third, minor seventh',
    'one chord, minor seventh, descending',
    '| Cm7 | % |',
    '0.5 0.5 1.3; 1 0.5 2.4; 1.5 0.5 2.3; 2 0.5 3.3; 2.5 0.5 3.5; 3 0.5 4.5; 3.5 0.5 4.3; 4 2 4.1',
  ],
  [
    'Up round the fifth, minor seventh',
    'one chord, minor seventh, ascending',
    '| Em7 | % |',
    '1.5 0.5 3.3; 2 0.5 3.4h; 2.5 0.5 2.3; 3 0.5 2.5; 3.5 0.5 1.3; 4 0.5 1.2; 4.5 1 1.2; 5.5 2 1.3',
  ],
  [
    'Down round the fifth, minor seventh',
    'one chord, minor seventh, descending',
    '| Fm7 | % |',
    '0 1 2.9; 1 0.5 2.8; 1.5 0.5 3.8; 2 0.5 2.6; 2.5 0.5 3.7; 3 0.5 4.9; 3.5 2 4.10',
  ],
  [
    'Up round the root, half-diminished',
    'one chord, half-diminished, ascending',
    '| Bm7b5 | % |',
    '0 1/3 5.1; 1/3 1/3 5.2h; 2/3 1/3 5.4; 1 1 5.5; 2 0.5 4.3; 2.5 0.5 3.2; 3 0.5 2.2; 3.5 2 2.3',
  ],
  [
    'Down round the root, half-diminished',
    'one chord, half-diminished, descending',
    '| Dm7b5 | % |',
    '0.5 0.5 2.6; 1 0.5 2.5; 1.5 0.5 3.7; 2 0.5 3.5; 2.5 0.5 4.6; 3 0.5 5.8; 3.5 0.5 5.7; 4 2 5.5',
  ],
  [
    'Up round the third, half-diminished',
    'one chord, half-diminished, ascending',
    '| F#m7b5 | % |',
    '1.5 0.5 6.4; 2 0.5 6.5h; 2.5 0.5 5.3; 3 0.5 4.2; 3.5 0.5 3.1; 4 0.5 3.2; 4.5 1 4.4; 5.5 2 4.2',
  ],
  [
    'Down round the third, half-diminished',
    'one chord, half-diminished, descending',
    '| Em7b5 | % |',
    '0 1 1.6; 1 0.5 2.8; 1.5 0.5 2.7; 2 0.5 3.7; 2.5 0.5 3.9; 3 0.5 4.8; 3.5 1 4.7; 4.5 2 4.5',
  ],
  [
    'Up round the fifth, half-diminished',
    'one chord, half-diminished, ascending',
    '| Am7b5 | % |',
    '0.5 0.5 5.5; 1 0.5 5.6h; 1.5 0.5 4.5; 2 0.5 4.7; 2.5 0.5 3.5; 3 0.5 3.4; 3.5 0.5 3.4; 4 2 3.5',
  ],
  [
    'Down round the fifth, half-diminished',
    'one chord, half-diminished, descending',
    '| Cm7b5 | % |',
    '0 0.5 2.4; 0.5 0.5 2.3; 1 1 3.3; 2.5 0.5 2.1; 3 0.5 3.1; 3.5 0.5 4.3; 4 2 4.4',
  ],
  [
    'Up round the root, minor sixth',
    'one chord, minor sixth, ascending',
    '| Cm6 | % |',
    '1.5 0.5 6.7; 2 0.5 6.8h; 2.5 0.5 5.5; 3 0.5 5.6; 3.5 0.5 4.5; 4 0.5 4.7; 4.5 1 3.7; 5.5 2 3.8',
  ],
  [
    'Down round the root, minor sixth',
    'one chord, minor sixth, descending',
    '| Am6 | % |',
    '0 1 3.5; 1 0.5 3.4; 1.5 0.5 3.2; 2 0.5 4.4; 2.5 0.5 4.2; 3 0.5 5.3; 3.5 1 5.2; 4.5 2 6.5',
  ],
  [
    'Up round the third, minor sixth',
    'one chord, minor sixth, ascending',
    '| Dm6 | % |',
    '0.5 0.5 4.2; 1 0.5 4.3h; 1.5 0.5 3.2; 2 0.5 3.4; 2.5 0.5 2.5; 3 0.5 2.6; 3.5 0.5 2.3; 4 2 3.4',
  ],
  [
    'Down round the third, minor sixth',
    'one chord, minor sixth, descending',
    '| Fm6 | % |',
    '0 0.5 1.8; 0.5 0.5 2.9; 1 1 2.8; 2.5 0.5 3.7; 3 0.5 2.6; 3.5 0.5 3.5; 4 1 4.8; 5 2 4.6',
  ],
  [
    'Up round the fifth, minor sixth',
    'one chord, minor sixth, ascending',
    '| Gm6 | % |',
    '0 1 5.4; 1 0.5 5.5h; 1.5 0.5 5.7; 2 0.5 4.5; 2.5 0.5 4.8; 3 0.5 4.7; 3.5 1 4.7; 4.5 2 4.8',
  ],
  [
    'Down round the fifth, minor sixth',
    'one chord, minor sixth, descending',
    '| Em6 | % |',
    '0 1/3 2.8; 1/3 1/3 2.7; 2/3 1/3 3.6; 1 1 2.5; 2 0.5 3.6; 2.5 0.5 4.8; 3 2 4.9',
  ],
  [
    'I to IV, first zone',
    'two chords, I to IV',
    'key: C\n| Cmaj7 | Fmaj7 |',
    '0 0.5 2.0; 0.5 0.5 2.1h; 1 0.5 2.0; 1.5 0.5 3.0; 2 0.5 2.0; 2.5 0.5 3.2; 3 0.5 3.0; 3.5 0.75 3.2; 5.5 0.5 2.1; 6 2 1.1',
  ],
  [
    'I to IV, second zone',
    'two chords, I to IV',
    'key: G\n| Gmaj7 | Cmaj7 |',
    '0 0.5 4.4; 0.5 0.5 4.5h; 1 0.5 4.4; 1.5 0.5 5.5; 2 0.5 4.5; 2.5 0.5 4.4; 3 0.5 5.5; 3.5 0.75 4.2; 5.5 0.5 4.5; 6 2 3.5',
  ],
  [
    'I to IV, third zone',
    'two chords, I to IV',
    'key: F\n| Fmaj7 | Bbmaj7 |',
    '0.5 0.5 2.5; 1 0.5 2.6; 1.5 0.5 2.8; 2 0.5 2.5; 2.5 0.5 2.6; 3 1 3.5; 4 0.75 3.7; 5.5 0.5 2.6; 6 2 3.7',
  ],
  [
    'I to IV, fourth zone',
    'two chords, I to IV',
    'key: Bb\n| Bbmaj7 | Ebmaj7 |',
    '0 0.5 4.7; 0.5 0.5 4.8; 1 0.5 3.7; 1.5 0.5 3.10; 2 1 2.10; 3 1 2.11; 4 0.5 5.10; 5.5 0.5 6.11; 6 2 5.10',
  ],
  [
    'I to IV, fifth zone',
    'two chords, I to IV',
    'key: D\n| Dmaj7 | Gmaj7 |',
    '0.5 0.5 1.14; 1 0.5 1.12; 1.5 0.5 2.14; 2 0.5 2.15h; 2.5 0.5 2.14p; 3 0.5 3.14; 3.5 1 2.12; 4.5 0.5 2.15; 5 0.5 1.14; 5.5 0.5 1.12p; 6 1.5 2.12',
  ],
  [
    'IV to I, first zone',
    'two chords, IV to I',
    'key: A\n| Dmaj7 | Amaj7 |',
    '0 1/3 1.2; 1/3 1/3 2.3; 2/3 1/3 2.2; 1 0.5 3.2; 1.5 0.5 3.4; 2 0.5 2.3; 2.5 0.5 2.2p; 3 0.5 1.2; 3.5 0.75 1.4; 5.5 0.5 2.5; 6 2 1.4',
  ],
  [
    'IV to I, second zone',
    'two chords, IV to I',
    'key: Eb\n| Abmaj7 | Ebmaj7 |',
    '0 1 3.5; 1 0.5 4.6; 1.5 0.5 3.3; 2 1/3 3.5; 2+1/3 1/3 1.3; 2+2/3 0.833 2.4; 3.5 0.75 2.3; 5.5 0.5 3.5; 6 2 2.3',
  ],
  [
    'IV to I, third zone',
    'two chords, IV to I',
    'key: C\n| Fmaj7 | Cmaj7 |',
    '0 0.5 1.5; 0.5 0.5 2.6; 1 0.5 3.5; 1.5 0.5 2.5; 2 0.5 2.6; 2.5 0.5 3.7; 3 0.5 3.5; 3.5 0.75 1.7; 5.5 0.5 1.5; 6 2 1.7',
  ],
  [
    'IV to I, fourth zone',
    'two chords, IV to I',
    'key: D\n| Gmaj7 | Dmaj7 |',
    '0.5 0.5 4.9; 1 0.5 4.12; 1.5 0.5 3.9; 2 0.5 3.12; 2.5 0.5 3.11; 3 1 3.12; 4 0.5 4.11; 5.5 0.5 5.12; 6 2 4.11',
  ],
  [
    'IV to I, fifth zone',
    'two chords, IV to I',
    'key: G\n| Cmaj7 | Gmaj7 |',
    '0 0.5 6.12; 0.5 0.5 5.10; 1 0.5 4.10; 1.5 0.5 4.9p; 2 0.5 4.12; 2.5 0.5 4.10; 3 1 3.9; 4 0.5 5.9; 5.5 0.5 6.10; 6 2 5.9',
  ],
  [
    'ii–V–I, first zone',
    'cadence, ii–V–I',
    'key: C\n| Dm7 | G7 | Cmaj7 | Cmaj7 |',
    '0 1 4.3; 1 0.5 4.0; 1.5 0.5 4.2; 2 0.5 5.3; 2.5 0.5 4.0; 3 0.5 4.2; 3.5 1 4.3; 5 0.5 2.0; 5.5 0.5 3.0; 6 0.5 4.1; 8 1 4.2; 9 0.5 5.3; 9.5 0.5 4.0; 10 0.5 5.2; 10.5 0.5 5.3; 11 0.5 4.0; 11.5 0.5 5.2; 12 0.5 6.3; 12.5 1 5.2; 13.5 0.5 5.3; 14 2 4.2',
  ],
  [
    'ii–V–I, second zone',
    'cadence, ii–V–I',
    'key: F\n| Gm7 | C7 | Fmaj7 | Fmaj7 |',
    '0.5 0.5 3.3; 1 0.5 4.5; 1.5 0.5 4.3; 2 0.5 5.5; 2.5 1 4.3; 4 0.5 3.3; 4.5 1 3.5h; 5.5 0.5 3.2p; 6 0.5 3.3; 6.5 0.5 3.5; 7 0.5 3.3; 7.5 2 3.2; 10.5 1 3.5; 12 0.5 2.5; 12.5 1 2.6h; 13.5 0.5 2.3; 14 2 2.5',
  ],
  [
    'ii–V–I, third zone',
    'cadence, ii–V–I',
    'key: Bb\n| Cm7 | F7 | Bbmaj7 | Bbmaj7 |',
    '0 0.5 3.8; 0.5 0.5 3.7; 1 0.5 4.8; 1.5 0.5 3.5; 2 0.5 3.8; 2.5 0.5 3.7; 3 0.5 3.5; 3.5 1 3.8; 4.5 0.5 2.6; 5 0.5 1.5; 5.5 0.5 2.6; 6 0.5 3.8; 8 0.5 3.7; 8.5 0.5 3.5; 9 0.5 5.8; 9.5 0.5 4.5; 10 0.5 4.8; 10.5 0.5 4.7p; 11 1 5.5; 12 0.5 5.8; 12.5 0.5 4.5; 13 0.5 4.7; 13.5 0.5 4.8; 14 2 3.7',
  ],
  [
    'ii–V–I, fourth zone',
    'cadence, ii–V–I',
    'key: G\n| Am7 | D7 | Gmaj7 | Gmaj7 |',
    '0 0.5 4.10; 0.5 0.5 4.7p; 1 0.5 4.9; 1.5 0.5 4.10; 2 0.5 4.7; 2.5 0.5 5.10; 3 0.5 4.9; 3.5 1 4.10; 4.5 0.5 3.7; 5 1 4.10; 6 0.5 4.8; 8 0.5 4.9; 8.5 0.5 5.9; 9 0.5 5.10; 9.5 0.5 4.7; 10 1 5.9; 11 1 6.7; 12 0.5 6.10; 12.5 0.5 5.7; 13 1 5.10; 14 2 5.9',
  ],
  [
    'ii–V–I, fifth zone',
    'cadence, ii–V–I',
    'key: Eb\n| Fm7 | Bb7 | Ebmaj7 | Ebmaj7 |',
    '0 0.5 5.11; 0.5 0.5 5.13; 1 0.5 4.10; 1.5 0.5 4.13h; 2 0.5 4.10; 2.5 0.5 5.13; 3 1 4.10; 4.5 0.5 5.11; 5 0.5 5.10; 5.5 0.5 5.13; 6 0.5 4.12; 6.5 0.5 5.13; 7 1 5.11; 8 1 5.10; 10.5 0.5 6.13; 11 1 5.10; 12.5 0.5 6.11; 13 0.5 6.10; 13.5 0.5 6.13h; 14 2 5.10',
  ],
  [
    'iiø–V–i, first zone',
    'cadence, iiø–V–i',
    'key: Cm\n| Dm7b5 | G7b9 | Cm6 | Cm6 |',
    '0.5 0.5 1.1; 1 0.5 2.3; 1.5 0.5 1.0; 2 0.5 2.1; 2.5 0.5 2.3h; 3 1 1.0; 4 0.5 1.1; 4.5 0.5 2.3; 5 0.5 2.0; 5.5 0.5 3.0; 6 0.5 2.0; 6.5 0.5 2.3h; 8.5 0.5 2.4; 9 0.5 1.3; 9.5 0.5 4.1; 10 0.5 5.3; 10.5 0.5 4.0; 11 1 3.2; 12 0.5 3.0; 12.5 0.5 4.3; 13 0.5 3.2; 13.5 0.5 2.0; 14 2 2.4',
  ],
  [
    'iiø–V–i, second zone',
    'cadence, iiø–V–i',
    'key: Am\n| Bm7b5 | E7b9 | Am6 | Am6 |',
    '0 0.5 2.3; 0.5 0.5 3.4; 1 0.5 3.2; 1.5 0.5 4.5; 2 0.5 3.2; 2.5 0.5 2.2; 3 0.5 3.4; 3.5 1 2.3; 4.5 0.5 2.5; 5 1 1.4; 6 1 1.1; 7 1 2.3; 8 0.5 3.5; 9.5 0.5 3.4; 10 0.5 3.5; 10.5 0.5 2.5; 11 0.5 5.3; 11.5 1 6.5; 12.5 0.5 5.2; 13 0.5 4.4; 13.5 0.5 3.1; 14 2 4.4',
  ],
  [
    'iiø–V–i, third zone',
    'cadence, iiø–V–i',
    'key: Dm\n| Em7b5 | A7b9 | Dm6 | Dm6 |',
    '0 0.5 4.5; 0.5 0.5 5.7; 1 0.5 5.5; 1.5 0.5 6.8; 2 0.5 5.7; 2.5 0.5 4.4; 3 0.5 5.5; 3.5 1 4.5; 4.5 0.5 4.7; 5 1 2.5; 6 0.5 3.6; 6.5 0.5 4.8; 7 1 4.5; 8.5 0.5 5.8; 9 0.5 5.7; 9.5 0.5 5.5p; 10 0.5 5.8; 10.5 0.5 4.7; 11 0.5 5.8; 11.5 0.5 4.5; 12 0.5 3.4; 13.5 0.5 3.7; 14 2 2.6',
  ],
  [
    'iiø–V–i, fourth zone',
    'cadence, iiø–V–i',
    'key: Gm\n| Am7b5 | D7b9 | Gm6 | Gm6 |',
    '0 1 4.10; 1 0.5 3.8; 1.5 0.5 2.8; 2 0.5 3.8; 2.5 0.5 3.10; 3 0.5 2.8; 3.5 1 4.10; 4.5 0.5 4.7; 5 0.5 3.7; 5.5 1 2.7; 6.5 0.5 3.7; 7 1 4.10; 8 0.5 4.8; 9.5 0.5 5.10; 10 0.5 5.7; 10.5 0.5 5.9; 11 0.5 5.10; 11.5 1 5.7; 12.5 0.5 6.10; 13 1 5.7; 14 2 5.10',
  ],
  [
    'iiø–V–i, fifth zone',
    'cadence, iiø–V–i',
    'key: Em\n| F#m7b5 | B7b9 | Em6 | Em6 |',
    '0.5 0.5 5.12; 1 0.5 4.10; 1.5 0.5 5.11; 2 0.5 6.12; 2.5 0.5 5.9; 3 1 5.11; 4 1.25 5.12; 5.5 0.5 5.9; 6 0.75 6.11; 8.5 0.5 5.10; 9 0.5 4.9; 9.5 0.5 5.12; 10 0.5 5.10; 10.5 0.5 4.11; 11 1 3.9; 12 0.5 3.12; 12.5 0.5 3.9p; 13 0.5 4.11; 13.5 0.5 4.9; 14 2 5.10',
  ],
  [
    'I7 to IV7, first zone',
    'blues, I7 to IV7',
    'key: A\n| A7 | D7 |',
    '0 1 4.5; 1 0.5 3.2; 1.5 0.5 4.4; 2 0.5 5.4; 2.5 0.5 5.3; 3 0.5 4.2s1; 3.5 0.75 4.4; 5.5 0.5 5.5; 6 2 6.2s1',
  ],
  [
    'I7 to IV7, second zone',
    'blues, I7 to IV7',
    'key: E\n| E7 | A7 |',
    '0 1 4.6; 1 0.5 3.4; 1.5 0.5 3.6h; 2 0.5 4.4; 2.5 0.5 4.5; 3 0.5 4.6; 3.5 0.75 4.5; 5.5 0.5 5.7s6; 6 2 6.5',
  ],
  [
    'I7 to IV7, third zone',
    'blues, I7 to IV7',
    'key: G\n| G7 | C7 |',
    '0 1 5.8; 1 0.5 5.5; 1.5 0.5 6.7; 2 0.5 4.5; 2.5 0.5 5.7; 3 0.5 5.5s4; 3.5 0.75 5.7; 5.5 0.5 4.5s4; 6 2 3.5',
  ],
  [
    'I7 to IV7, fourth zone',
    'blues, I7 to IV7',
    'key: C\n| C7 | F7 |',
    '0.5 0.5 4.8; 1 0.5 4.10h; 1.5 0.5 3.9s8; 2 0.5 2.8; 2.5 0.5 3.9; 3 0.5 4.10; 3.5 1 3.8; 4.5 0.5 2.10; 5 0.5 1.8; 5.5 0.5 2.10; 6 2 3.10',
  ],
  [
    'I7 to IV7, fifth zone',
    'blues, I7 to IV7',
    'key: D\n| D7 | G7 |',
    '0 0.5 6.14; 0.5 0.5 5.12; 1 0.5 5.14; 1.5 0.5 4.14; 2 1/3 3.11; 2+1/3 1/3 4.15; 2+2/3 1/3 3.14; 3 0.5 6.14s13; 3.5 0.75 6.13; 5.5 0.5 5.12; 6 2 5.14',
  ],
  [
    'IV7 to I7, first zone',
    'blues, IV7 to I7',
    'key: A\n| D7 | A7 |',
    '0.5 0.5 4.4; 1 0.5 3.2; 1.5 0.5 4.3; 2 0.5 4.4s3; 2.5 0.5 4.2; 3 1 5.5; 4 0.5 4.5; 5.5 0.5 3.4; 6 2 2.2',
  ],
  [
    'IV7 to I7, second zone',
    'blues, IV7 to I7',
    'key: E\n| A7 | E7 |',
    '0.5 0.5 4.5; 1 0.5 5.4s3; 1.5 0.5 5.7; 2 0.5 4.4; 2.5 0.5 5.7; 3 1 5.4s3; 4 0.5 4.6s5; 5.5 0.5 3.4; 6 2 2.3b2',
  ],
  [
    'IV7 to I7, third zone',
    'blues, IV7 to I7',
    'key: G\n| C7 | G7 |',
    '0 1/3 5.7; 1/3 1/3 5.6p; 2/3 1/3 5.5; 1 0.5 6.8; 1.5 0.5 5.6; 2 0.5 5.7; 2.5 0.5 5.5p; 3 0.5 6.8; 3.5 0.75 5.8; 5.5 0.5 4.7; 6 2 3.4s3',
  ],
  [
    'IV7 to I7, fourth zone',
    'blues, IV7 to I7',
    'key: C\n| F7 | C7 |',
    '0.5 0.5 4.7; 1 0.5 4.10s9; 1.5 0.5 3.8b2; 2 0.5 4.10; 2.5 0.5 3.7; 3 1 4.7s6; 4 0.75 4.8; 5.5 0.5 4.10; 6 2 5.7',
  ],
  [
    'IV7 to I7, fifth zone',
    'blues, IV7 to I7',
    'key: D\n| G7 | D7 |',
    '0.5 0.5 6.13; 1 0.5 6.15; 1.5 0.5 6.12; 2 0.5 5.13; 2.5 0.5 5.12; 3 1 6.13; 4 0.5 6.14s13; 5.5 0.5 5.12; 6 2 4.12',
  ],
];

/** `1/3`, `2+2/3`, `0.5`. */
const timeOf = (text: string): number =>
  text.split('+').reduce((sum, part) => {
    const [over = '0', under = '1'] = part.split('/');
    return sum + Number(over) / Number(under);
  }, 0);

function techniqueOf(text: string): readonly Technique[] {
  const value = Number(text.slice(1));
  switch (text[0]) {
    case 'h':
      return [{ kind: 'hammer-on' }];
    case 'p':
      return [{ kind: 'pull-off' }];
    case 'b':
      return [{ kind: 'bend', by: value === 1 ? 1 : 2 }];
    case 's':
      return [{ kind: 'slide', from: value }];
    default:
      return [];
  }
}

const noteOf = (text: string): LickNote => {
  const [beat = '', beats = '', place = ''] = text.split(' ');
  const [, string = '1', fret = '0', technique = ''] = /^(\d)\.(\d+)(.*)$/u.exec(place) ?? [];
  return {
    beat: timeOf(beat),
    beats: timeOf(beats),
    string: Number(string),
    fret: Number(fret),
    techniques: techniqueOf(technique),
  };
};

/** The starter book, in its order. */
export const STARTER_LICKS: readonly Lick[] = ROWS.map(([title, tags, chart, notes]) => ({
  title,
  tags: tags.split(', '),
  source: 'Corvel',
  chart,
  notes: notes.split('; ').map(noteOf),
}));
