/**
 * The lick book a player begins with: short lines of our own. For each kind of chord an ascending
 * and a descending line round root, third and fifth; then lines over changes in each of five zones.
 *
 * A lick is two lines: title, tags and the lines of its chart; then its notes as `beat beats string.fret`,
 * with `h`, `p`, `b2` or `s4` after.
 */
export const STARTER_ROWS = `
Climb to the third, Cmaj7; one chord, major seventh, ascending; | Cmaj7 | % |
  0.5 0.5 5.2; 1 0.5 5.3h; 1.5 0.5 5.5; 2 0.5 4.2; 2.5 0.5 4.5; 3 0.5 3.4; 3.5 0.5 2.3; 4 2 2.5
Fall to the root, Amaj7; one chord, major seventh, descending; | Amaj7 | % |
  0 0.5 2.2; 0.5 0.5 3.4; 1 1 3.2; 2.5 0.5 3.1; 3 0.5 4.2; 3.5 0.5 5.4; 4 1 5.2; 5 2 6.5
Climb to the seventh, E♭maj7; one chord, major seventh, ascending; | Ebmaj7 | % |
  0 1 5.9; 1 0.5 5.10h; 1.5 0.5 4.8; 2 0.5 3.7; 2.5 0.5 2.6; 3 0.5 2.8; 3.5 1 3.8; 4.5 2 3.7
Fall to the third, Gmaj7; one chord, major seventh, descending; | Gmaj7 | % |
  0 1/3 2.3; 1/3 1/3 3.4; 2/3 1/3 3.2; 1 1 4.4; 2 0.5 4.5; 2.5 0.5 5.5; 3 0.5 5.4; 3.5 2 5.2
Climb to the third, Dmaj7; one chord, major seventh, ascending; | Dmaj7 | % |
  0 0.5 4.6; 0.5 0.5 4.7h; 1 1 3.6; 2.5 0.5 3.7; 3 0.5 2.7; 3.5 0.5 2.5; 4 1 2.6; 5 2 2.7
Fall to the fifth, Fmaj7; one chord, major seventh, descending; | Fmaj7 | % |
  1.5 0.5 1.5; 2 0.5 1.3; 2.5 0.5 2.5; 3 0.5 2.6; 3.5 0.5 2.3; 4 0.5 3.4; 4.5 2 3.5
Climb to the third, G7; one chord, dominant seventh, ascending; | G7 | % |
  0 1 6.2; 1 0.5 6.3h; 1.5 0.5 6.5; 2 0.5 5.2; 2.5 0.5 5.5; 3 0.5 4.3; 3.5 1 3.2; 4.5 2 3.4
Fall to the root, C7; one chord, dominant seventh, descending; | C7 | % |
  0 1/3 2.5; 1/3 1/3 2.3; 2/3 1/3 3.5; 1 1 3.3; 2 0.5 4.5; 2.5 0.5 5.7; 3 0.5 5.5; 3.5 2 5.3
Climb to the seventh, A7; one chord, dominant seventh, ascending; | A7 | % |
  0 0.5 5.3; 0.5 0.5 5.4h; 1 1 4.2; 2.5 0.5 4.5; 3 0.5 3.4; 3.5 0.5 2.2; 4 1 3.2; 5 2 4.5
Fall to the third, F7; one chord, dominant seventh, descending; | F7 | % |
  1.5 0.5 1.8; 2 0.5 2.10; 2.5 0.5 2.8; 3 0.5 3.8; 3.5 0.5 3.10; 4 0.5 4.10; 4.5 1 4.8; 5.5 2 4.7
Climb to the third, D7; one chord, dominant seventh, ascending; | D7 | % |
  0 1/3 4.6; 1/3 1/3 4.7h; 2/3 1/3 3.5; 1 1 3.7; 2 0.5 2.7; 2.5 0.5 2.5; 3 0.5 2.6; 3.5 2 2.7
Fall to the fifth, B♭7; one chord, dominant seventh, descending; | Bb7 | % |
  0.5 0.5 2.3; 1 0.5 2.1; 1.5 0.5 3.1; 2 0.5 3.3; 2.5 0.5 4.5; 3 0.5 4.2; 3.5 2 4.3
Climb to the third, Am7; one chord, minor seventh, ascending; | Am7 | % |
  0 0.5 6.4; 0.5 0.5 6.5h; 1 1 6.7; 2.5 0.5 6.8; 3 0.5 5.7; 3.5 0.5 4.5; 4 1 3.4; 5 2 3.5
Fall to the root, Dm7; one chord, minor seventh, descending; | Dm7 | % |
  1.5 0.5 2.6; 2 0.5 2.5; 2.5 0.5 3.7; 3 0.5 3.5; 3.5 0.5 4.7; 4 0.5 5.8; 4.5 1 5.7; 5.5 2 5.5
Climb to the seventh, Gm7; one chord, minor seventh, ascending; | Gm7 | % |
  0 1/3 6.5; 1/3 1/3 6.6h; 2/3 1/3 5.5; 1 1 4.3; 2 0.5 3.2; 2.5 0.5 3.3; 3 0.5 4.5; 3.5 2 4.3
Fall to the third, Cm7; one chord, minor seventh, descending; | Cm7 | % |
  0.5 0.5 1.3; 1 0.5 2.4; 1.5 0.5 2.3; 2 0.5 3.3; 2.5 0.5 3.5; 3 0.5 4.5; 3.5 0.5 4.3; 4 2 4.1
Climb to the third, Em7; one chord, minor seventh, ascending; | Em7 | % |
  1.5 0.5 3.3; 2 0.5 3.4h; 2.5 0.5 2.3; 3 0.5 2.5; 3.5 0.5 1.3; 4 0.5 1.2; 4.5 1 1.2; 5.5 2 1.3
Fall to the fifth, Fm7; one chord, minor seventh, descending; | Fm7 | % |
  0 1 2.9; 1 0.5 2.8; 1.5 0.5 3.8; 2 0.5 2.6; 2.5 0.5 3.7; 3 0.5 4.9; 3.5 2 4.10
Climb to the third, Bm7♭5; one chord, half-diminished, ascending; | Bm7b5 | % |
  0 1/3 5.1; 1/3 1/3 5.2h; 2/3 1/3 5.4; 1 1 5.5; 2 0.5 4.3; 2.5 0.5 3.2; 3 0.5 2.2; 3.5 2 2.3
Fall to the root, Dm7♭5; one chord, half-diminished, descending; | Dm7b5 | % |
  0.5 0.5 2.6; 1 0.5 2.5; 1.5 0.5 3.7; 2 0.5 3.5; 2.5 0.5 4.6; 3 0.5 5.8; 3.5 0.5 5.7; 4 2 5.5
Climb to the seventh, F♯m7♭5; one chord, half-diminished, ascending; | F#m7b5 | % |
  1.5 0.5 6.4; 2 0.5 6.5h; 2.5 0.5 5.3; 3 0.5 4.2; 3.5 0.5 3.1; 4 0.5 3.2; 4.5 1 4.4; 5.5 2 4.2
Fall to the third, Em7♭5; one chord, half-diminished, descending; | Em7b5 | % |
  0 1 1.6; 1 0.5 2.8; 1.5 0.5 2.7; 2 0.5 3.7; 2.5 0.5 3.9; 3 0.5 4.8; 3.5 1 4.7; 4.5 2 4.5
Climb to the third, Am7♭5; one chord, half-diminished, ascending; | Am7b5 | % |
  0.5 0.5 5.5; 1 0.5 5.6h; 1.5 0.5 4.5; 2 0.5 4.7; 2.5 0.5 3.5; 3 0.5 3.4; 3.5 0.5 3.4; 4 2 3.5
Fall to the flat fifth, Cm7♭5; one chord, half-diminished, descending; | Cm7b5 | % |
  0 0.5 2.4; 0.5 0.5 2.3; 1 1 3.3; 2.5 0.5 2.1; 3 0.5 3.1; 3.5 0.5 4.3; 4 2 4.4
Climb to the third, Cm6; one chord, minor sixth, ascending; | Cm6 | % |
  1.5 0.5 6.7; 2 0.5 6.8h; 2.5 0.5 5.5; 3 0.5 5.6; 3.5 0.5 4.5; 4 0.5 4.7; 4.5 1 3.7; 5.5 2 3.8
Fall to the root, Am6; one chord, minor sixth, descending; | Am6 | % |
  0 1 3.5; 1 0.5 3.4; 1.5 0.5 3.2; 2 0.5 4.4; 2.5 0.5 4.2; 3 0.5 5.3; 3.5 1 5.2; 4.5 2 6.5
Climb to the sixth, Dm6; one chord, minor sixth, ascending; | Dm6 | % |
  0.5 0.5 4.2; 1 0.5 4.3h; 1.5 0.5 3.2; 2 0.5 3.4; 2.5 0.5 2.5; 3 0.5 2.6; 3.5 0.5 2.3; 4 2 3.4
Fall to the third, Fm6; one chord, minor sixth, descending; | Fm6 | % |
  0 0.5 1.8; 0.5 0.5 2.9; 1 1 2.8; 2.5 0.5 3.7; 3 0.5 2.6; 3.5 0.5 3.5; 4 1 4.8; 5 2 4.6
Climb to the third, Gm6; one chord, minor sixth, ascending; | Gm6 | % |
  0 1 5.4; 1 0.5 5.5h; 1.5 0.5 5.7; 2 0.5 4.5; 2.5 0.5 4.8; 3 0.5 4.7; 3.5 1 4.7; 4.5 2 4.8
Fall to the fifth, Em6; one chord, minor sixth, descending; | Em6 | % |
  0 1/3 2.8; 1/3 1/3 2.7; 2/3 1/3 3.6; 1 1 2.5; 2 0.5 3.6; 2.5 0.5 4.8; 3 2 4.9
I to IV: land on the root of Fmaj7; two chords, I to IV; key: C; | Cmaj7 | Fmaj7 |
  0 0.5 2.0; 0.5 0.5 2.1h; 1 0.5 2.0; 1.5 0.5 3.0; 2 0.5 2.0; 2.5 0.5 3.2; 3 0.5 3.0; 3.5 0.75 3.2; 5.5 0.5 2.1; 6 2 1.1
I to IV: land on the root of Cmaj7; two chords, I to IV; key: G; | Gmaj7 | Cmaj7 |
  0 0.5 4.4; 0.5 0.5 4.5h; 1 0.5 4.4; 1.5 0.5 5.5; 2 0.5 4.5; 2.5 0.5 4.4; 3 0.5 5.5; 3.5 0.75 4.2; 5.5 0.5 4.5; 6 2 3.5
I to IV: land on the third of B♭maj7; two chords, I to IV; key: F; | Fmaj7 | Bbmaj7 |
  0.5 0.5 2.5; 1 0.5 2.6; 1.5 0.5 2.8; 2 0.5 2.5; 2.5 0.5 2.6; 3 1 3.5; 4 0.75 3.7; 5.5 0.5 2.6; 6 2 3.7
I to IV: land on the third of E♭maj7; two chords, I to IV; key: Bb; | Bbmaj7 | Ebmaj7 |
  0 0.5 4.7; 0.5 0.5 4.8; 1 0.5 3.7; 1.5 0.5 3.10; 2 1 2.10; 3 1 2.11; 4 0.5 5.10; 5.5 0.5 6.11; 6 2 5.10
I to IV: land on the third of Gmaj7; two chords, I to IV; key: D; | Dmaj7 | Gmaj7 |
  0.5 0.5 1.14; 1 0.5 1.12; 1.5 0.5 2.14; 2 0.5 2.15h; 2.5 0.5 2.14p; 3 0.5 3.14; 3.5 1 2.12; 4.5 0.5 2.15; 5 0.5 1.14; 5.5 0.5 1.12p; 6 1.5 2.12
IV to I: land on the seventh of Amaj7; two chords, IV to I; key: A; | Dmaj7 | Amaj7 |
  0 1/3 1.2; 1/3 1/3 2.3; 2/3 1/3 2.2; 1 0.5 3.2; 1.5 0.5 3.4; 2 0.5 2.3; 2.5 0.5 2.2p; 3 0.5 1.2; 3.5 0.75 1.4; 5.5 0.5 2.5; 6 2 1.4
IV to I: land on the seventh of E♭maj7; two chords, IV to I; key: Eb; | Abmaj7 | Ebmaj7 |
  0 1 3.5; 1 0.5 4.6; 1.5 0.5 3.3; 2 1/3 3.5; 2+1/3 1/3 1.3; 2+2/3 0.833 2.4; 3.5 0.75 2.3; 5.5 0.5 3.5; 6 2 2.3
IV to I: land on the seventh of Cmaj7; two chords, IV to I; key: C; | Fmaj7 | Cmaj7 |
  0 0.5 1.5; 0.5 0.5 2.6; 1 0.5 3.5; 1.5 0.5 2.5; 2 0.5 2.6; 2.5 0.5 3.7; 3 0.5 3.5; 3.5 0.75 1.7; 5.5 0.5 1.5; 6 2 1.7
IV to I: land on the seventh of Dmaj7; two chords, IV to I; key: D; | Gmaj7 | Dmaj7 |
  0.5 0.5 4.9; 1 0.5 4.12; 1.5 0.5 3.9; 2 0.5 3.12; 2.5 0.5 3.11; 3 1 3.12; 4 0.5 4.11; 5.5 0.5 5.12; 6 2 4.11
IV to I: land on the seventh of Gmaj7; two chords, IV to I; key: G; | Cmaj7 | Gmaj7 |
  0 0.5 6.12; 0.5 0.5 5.10; 1 0.5 4.10; 1.5 0.5 4.9p; 2 0.5 4.12; 2.5 0.5 4.10; 3 1 3.9; 4 0.5 5.9; 5.5 0.5 6.10; 6 2 5.9
ii–V–I: land on the third of Cmaj7; cadence, ii–V–I; key: C; | Dm7 | G7 | Cmaj7 | Cmaj7 |
  0 1 4.3; 1 0.5 4.0; 1.5 0.5 4.2; 2 0.5 5.3; 2.5 0.5 4.0; 3 0.5 4.2; 3.5 1 4.3; 5 0.5 2.0; 5.5 0.5 3.0; 6 0.5 4.1; 8 1 4.2; 9 0.5 5.3; 9.5 0.5 4.0; 10 0.5 5.2; 10.5 0.5 5.3; 11 0.5 4.0; 11.5 0.5 5.2; 12 0.5 6.3; 12.5 1 5.2; 13.5 0.5 5.3; 14 2 4.2
ii–V–I: land on the seventh of Fmaj7; cadence, ii–V–I; key: F; | Gm7 | C7 | Fmaj7 | Fmaj7 |
  0.5 0.5 3.3; 1 0.5 4.5; 1.5 0.5 4.3; 2 0.5 5.5; 2.5 1 4.3; 4 0.5 3.3; 4.5 1 3.5h; 5.5 0.5 3.2p; 6 0.5 3.3; 6.5 0.5 3.5; 7 0.5 3.3; 7.5 2 3.2; 10.5 1 3.5; 12 0.5 2.5; 12.5 1 2.6h; 13.5 0.5 2.3; 14 2 2.5
ii–V–I: land on the third of B♭maj7; cadence, ii–V–I; key: Bb; | Cm7 | F7 | Bbmaj7 | Bbmaj7 |
  0 0.5 3.8; 0.5 0.5 3.7; 1 0.5 4.8; 1.5 0.5 3.5; 2 0.5 3.8; 2.5 0.5 3.7; 3 0.5 3.5; 3.5 1 3.8; 4.5 0.5 2.6; 5 0.5 1.5; 5.5 0.5 2.6; 6 0.5 3.8; 8 0.5 3.7; 8.5 0.5 3.5; 9 0.5 5.8; 9.5 0.5 4.5; 10 0.5 4.8; 10.5 0.5 4.7p; 11 1 5.5; 12 0.5 5.8; 12.5 0.5 4.5; 13 0.5 4.7; 13.5 0.5 4.8; 14 2 3.7
ii–V–I: land on the seventh of Gmaj7; cadence, ii–V–I; key: G; | Am7 | D7 | Gmaj7 | Gmaj7 |
  0 0.5 4.10; 0.5 0.5 4.7p; 1 0.5 4.9; 1.5 0.5 4.10; 2 0.5 4.7; 2.5 0.5 5.10; 3 0.5 4.9; 3.5 1 4.10; 4.5 0.5 3.7; 5 1 4.10; 6 0.5 4.8; 8 0.5 4.9; 8.5 0.5 5.9; 9 0.5 5.10; 9.5 0.5 4.7; 10 1 5.9; 11 1 6.7; 12 0.5 6.10; 12.5 0.5 5.7; 13 1 5.10; 14 2 5.9
ii–V–I: land on the third of E♭maj7; cadence, ii–V–I; key: Eb; | Fm7 | Bb7 | Ebmaj7 | Ebmaj7 |
  0 0.5 5.11; 0.5 0.5 5.13; 1 0.5 4.10; 1.5 0.5 4.13h; 2 0.5 4.10; 2.5 0.5 5.13; 3 1 4.10; 4.5 0.5 5.11; 5 0.5 5.10; 5.5 0.5 5.13; 6 0.5 4.12; 6.5 0.5 5.13; 7 1 5.11; 8 1 5.10; 10.5 0.5 6.13; 11 1 5.10; 12.5 0.5 6.11; 13 0.5 6.10; 13.5 0.5 6.13h; 14 2 5.10
iiø–V–i: land on the third of Cm6; cadence, iiø–V–i; key: Cm; | Dm7b5 | G7b9 | Cm6 | Cm6 |
  0.5 0.5 1.1; 1 0.5 2.3; 1.5 0.5 1.0; 2 0.5 2.1; 2.5 0.5 2.3h; 3 1 1.0; 4 0.5 1.1; 4.5 0.5 2.3; 5 0.5 2.0; 5.5 0.5 3.0; 6 0.5 2.0; 6.5 0.5 2.3h; 8.5 0.5 2.4; 9 0.5 1.3; 9.5 0.5 4.1; 10 0.5 5.3; 10.5 0.5 4.0; 11 1 3.2; 12 0.5 3.0; 12.5 0.5 4.3; 13 0.5 3.2; 13.5 0.5 2.0; 14 2 2.4
iiø–V–i: land on the sixth of Am6; cadence, iiø–V–i; key: Am; | Bm7b5 | E7b9 | Am6 | Am6 |
  0 0.5 2.3; 0.5 0.5 3.4; 1 0.5 3.2; 1.5 0.5 4.5; 2 0.5 3.2; 2.5 0.5 2.2; 3 0.5 3.4; 3.5 1 2.3; 4.5 0.5 2.5; 5 1 1.4; 6 1 1.1; 7 1 2.3; 8 0.5 3.5; 9.5 0.5 3.4; 10 0.5 3.5; 10.5 0.5 2.5; 11 0.5 5.3; 11.5 1 6.5; 12.5 0.5 5.2; 13 0.5 4.4; 13.5 0.5 3.1; 14 2 4.4
iiø–V–i: land on the third of Dm6; cadence, iiø–V–i; key: Dm; | Em7b5 | A7b9 | Dm6 | Dm6 |
  0 0.5 4.5; 0.5 0.5 5.7; 1 0.5 5.5; 1.5 0.5 6.8; 2 0.5 5.7; 2.5 0.5 4.4; 3 0.5 5.5; 3.5 1 4.5; 4.5 0.5 4.7; 5 1 2.5; 6 0.5 3.6; 6.5 0.5 4.8; 7 1 4.5; 8.5 0.5 5.8; 9 0.5 5.7; 9.5 0.5 5.5p; 10 0.5 5.8; 10.5 0.5 4.7; 11 0.5 5.8; 11.5 0.5 4.5; 12 0.5 3.4; 13.5 0.5 3.7; 14 2 2.6
iiø–V–i: land on the root of Gm6; cadence, iiø–V–i; key: Gm; | Am7b5 | D7b9 | Gm6 | Gm6 |
  0 1 4.10; 1 0.5 3.8; 1.5 0.5 2.8; 2 0.5 3.8; 2.5 0.5 3.10; 3 0.5 2.8; 3.5 1 4.10; 4.5 0.5 4.7; 5 0.5 3.7; 5.5 1 2.7; 6.5 0.5 3.7; 7 1 4.10; 8 0.5 4.8; 9.5 0.5 5.10; 10 0.5 5.7; 10.5 0.5 5.9; 11 0.5 5.10; 11.5 1 5.7; 12.5 0.5 6.10; 13 1 5.7; 14 2 5.10
iiø–V–i: land on the third of Em6; cadence, iiø–V–i; key: Em; | F#m7b5 | B7b9 | Em6 | Em6 |
  0.5 0.5 5.12; 1 0.5 4.10; 1.5 0.5 5.11; 2 0.5 6.12; 2.5 0.5 5.9; 3 1 5.11; 4 1.25 5.12; 5.5 0.5 5.9; 6 0.75 6.11; 8.5 0.5 5.10; 9 0.5 4.9; 9.5 0.5 5.12; 10 0.5 5.10; 10.5 0.5 4.11; 11 1 3.9; 12 0.5 3.12; 12.5 0.5 3.9p; 13 0.5 4.11; 13.5 0.5 4.9; 14 2 5.10
I7 to IV7: land on the third of D7; blues, I7 to IV7; key: A; | A7 | D7 |
  0 1 4.5; 1 0.5 3.2; 1.5 0.5 4.4; 2 0.5 5.3; 2.5 0.5 5.4; 3 0.5 4.2s1; 3.5 0.75 4.4; 5.5 0.5 5.5; 6 2 6.2s1
I7 to IV7: land on the root of A7; blues, I7 to IV7; key: E; | E7 | A7 |
  0 1 4.6; 1 0.5 3.4; 1.5 0.5 3.6h; 2 0.5 4.4; 2.5 0.5 4.5; 3 0.5 4.6; 3.5 0.75 4.5; 5.5 0.5 5.7s6; 6 2 6.5
I7 to IV7: land on the root of C7; blues, I7 to IV7; key: G; | G7 | C7 |
  0 1 5.8; 1 0.5 5.5; 1.5 0.5 6.7; 2 0.5 4.5; 2.5 0.5 5.7; 3 0.5 5.5s4; 3.5 0.75 5.7; 5.5 0.5 4.5s4; 6 2 3.5
I7 to IV7: land on the root of F7; blues, I7 to IV7; key: C; | C7 | F7 |
  0.5 0.5 4.8; 1 0.5 4.10h; 1.5 0.5 3.9s8; 2 0.5 2.8; 2.5 0.5 3.9; 3 0.5 4.10; 3.5 1 3.8; 4.5 0.5 2.10; 5 0.5 1.8; 5.5 0.5 2.10; 6 2 3.10
I7 to IV7: land on the third of G7; blues, I7 to IV7; key: D; | D7 | G7 |
  0 0.5 6.14; 0.5 0.5 5.12; 1 0.5 5.14; 1.5 0.5 4.14; 2 1/3 4.15; 2+1/3 1/3 3.11; 2+2/3 1/3 3.14; 3 0.5 6.14s13; 3.5 0.75 6.13; 5.5 0.5 5.12; 6 2 5.14
IV7 to I7: land on the third of A7; blues, IV7 to I7; key: A; | D7 | A7 |
  0.5 0.5 4.4; 1 0.5 3.2; 1.5 0.5 4.3; 2 0.5 4.4s3; 2.5 0.5 4.2; 3 1 5.5; 4 0.5 4.5; 5.5 0.5 3.4; 6 2 2.2
IV7 to I7: land on the seventh of E7; blues, IV7 to I7; key: E; | A7 | E7 |
  0.5 0.5 4.5; 1 0.5 5.4s3; 1.5 0.5 5.7; 2 0.5 4.4; 2.5 0.5 5.7; 3 1 5.4s3; 4 0.5 4.6s5; 5.5 0.5 3.4; 6 2 2.3b2
IV7 to I7: land on the third of G7; blues, IV7 to I7; key: G; | C7 | G7 |
  0 1/3 5.5; 1/3 1/3 5.6h; 2/3 1/3 5.7h; 1 0.5 6.8; 1.5 0.5 5.6; 2 0.5 5.7; 2.5 0.5 5.5p; 3 0.5 6.8; 3.5 0.75 5.8; 5.5 0.5 4.7; 6 2 3.4s3
IV7 to I7: land on the third of C7; blues, IV7 to I7; key: C; | F7 | C7 |
  0.5 0.5 4.7; 1 0.5 4.10s9; 1.5 0.5 3.8b2; 2 0.5 4.10; 2.5 0.5 3.7; 3 1 4.7s6; 4 0.75 4.8; 5.5 0.5 4.10; 6 2 5.7
IV7 to I7: land on the root of D7; blues, IV7 to I7; key: D; | G7 | D7 |
  0.5 0.5 6.13; 1 0.5 6.15; 1.5 0.5 6.12; 2 0.5 5.13; 2.5 0.5 5.12; 3 1 6.13; 4 0.5 6.14s13; 5.5 0.5 5.12; 6 2 4.12
`;
