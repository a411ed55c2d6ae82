/** Loops, vamps and charts of slash chords as players bring them, in C or its relatives; all are made up. */
export const LOOP_CHARTS: readonly string[] = `
| C | F |
| C | % | F | % |
| C | G |
| C | Am |
| C | Em |
| C | Dm |
| C | Bb |
| C | Ab |
| C | Eb |
| C | D |
| C | E |
| C | A |
| C | Db |
| C | Fm |
| C | Gm |
| C | G | Am | F |
| C | G | F | G |
| C | G | Dm | F |
| C | G | F | C |
| C | Am | F | G |
| C | Am | Dm | G |
| C | A | D | G |
| C | F | G | F |
| C | F | Am | G |
| C | F | C | G |
| C | F | Dm | G |
| C | Dm | F | G |
| C | Dm | Em | F |
| C | Em | F | G |
| C | Em | Am | F |
| C | E | Am | F |
| C | E7 | Am | F |
| C | E7 | F | Fm |
| C | E | F | Fm |
| C | F | Fm | C |
| C | C7 | F | Fm |
| C | Cmaj7 | C7 | F |
| C | C+ | C6 | C7 |
| C | G/B | Am | F |
| C | G/B | Am | Am/G |
| C | C/B | Am | C/G |
| C | C/E | F | G |
| C | F/C | G/C | C |
| C | Bb/C | F/C | C |
| C | D/C | F/C | C |
| C | Bb | F | C |
| C | Bb | F | G |
| C | Bb | Ab | G |
| C | Bb | Ab | Bb |
| C | Ab | Bb | C |
| C | Eb | F | C |
| C | Eb | Bb | F |
| C | Eb | Ab | Bb |
| C | D | F | C |
| C | D7 | F | G |
| C | Gm | F | C |
| C | Gm7 | F | Fm |
| C | B7 | Em | G |
| C | A7 | Dm | G7 |
| C | A7 | D7 | G7 |
| C | Ebdim7 | Dm | G7 |
| C | C#dim7 | Dm | G |
| C6 | Am7 | Dm7 | G7 |
| Cadd9 | Em7 | Fmaj7 | G |
| Csus2 | Am7 | Fmaj7 | G |
| Csus4 | C | Gsus4 | G |
| Cmaj7 | Fmaj7 |
| Cmaj7 | Dm7 |
| Cmaj7 | Am7 | Dm7 | G7 |
| Cmaj7 | A7 | Dm7 | G7 |
| Cmaj7 | Em7 | Dm7 | G7 |
| Cmaj7 | Ebm7 | Dm7 | G7 |
| Cmaj7 | Ebmaj7 | Abmaj7 | Dbmaj7 |
| Cmaj7 | Fm7 | Bb7 | Cmaj7 |
| Cmaj7 | Bb7 | Cmaj7 | Bb7 |
| Cmaj7 | Bm7b5 | E7 | Am7 |
| Cmaj7 | Gm7 | C7 | Fmaj7 |
| Cmaj7 | Abmaj7 | Dbmaj7 | G7 |
| Cmaj7/E | A7 | Dm7/G | G7 |
| C/E | F | G | Am |
| C/E | Ebdim7 | Dm7 | Db7 |
| C/G | G | C/G | G7 |
| C/Bb | F/A | Fm/Ab | C/G |
| F | C/E | Dm | C |
| F | G | C | Am |
| F | G | Em | Am |
| F | G7 | C | Am |
| F | G | Am | E7 |
| F | G | Am | C |
| F | C | G | Am |
| F | Fm | C | A7 |
| Fmaj7 | Em7 | Dm7 | Cmaj7 |
| Fmaj7 | G | Em7 | Am7 |
| Dm | G | C | F |
| Dm | F | C | G |
| Dm | G |
| Dm7 | G7 |
| Dm7 | G7 | C | % |
| Dm7 | G7 | Cmaj7 | A7 |
| Dm7 | Db7 | C | % |
| Dm7 | Em7 |
| Dm7 | Ebm7 |
| Dm7 | Ebmaj7 |
| Dm9 | G13 |
| Am | F |
| Am | G |
| Am | Em |
| Am | Dm |
| Am | D |
| Am | E |
| Am | E7 |
| Am | Bb |
| Am | C |
| Am7 | D7 |
| Am7 | D9 | Am7 | D9 |
| Am | G | F | G |
| Am | G | F | E |
| Am | G | F | E7 |
| Am | G | D | F |
| Am | F | C | G |
| Am | F | G | Em |
| Am | F | Dm | E |
| Am | C | G | D |
| Am | C | D | F |
| Am | C | F | G |
| Am | Dm | E | Am |
| Am | Dm | G | C |
| Am | Dm7 | E7 | Am |
| Am | Em | F | G |
| Am | Em | Dm | E |
| Am | E/G# | G | D/F# |
| Am | Am/G | F | E |
| Am | Am/G | Am/F# | F |
| Am | Am(maj7) | Am7 | Am6 |
| Am | Ab+ | C/G | D/F# |
| Am | B7 | E7 | Am |
| Am | Bm7b5 | E7 | Am |
| Am6 | Bm7b5 | E7b9 | Am6 |
| Am7 | Fmaj7 | Dm7 | E7 |
| Am7 | Fmaj7 | Cmaj7 | G |
| Am7 | Dm7 | Bm7b5 | E7 |
| Am9 | Dm9 |
| Em | F |
| Em | D | C | B7 |
| Em | G | D | A |
| Em7 | A7 |
| E | F | G | F |
| E | F |
| A7 | D7 |
| C7 | F7 |
| C7 | F7 | C7 | G7 |
| C7 | Bb |
| C7 | Bb | F | C7 |
| C7 | Eb7 | F7 | C7 |
| C7 | Ab7 | G7 | C7 |
| C7 | A7 | D7 | G7 |
| C7 | B7 | Bb7 | A7 |
| C9 | F9 |
| C7#9 | F7 |
| Cm7 | F7 |
| Cm | Bb | Ab | G7 |
| Cm | Ab | Eb | Bb |
| Cm | Fm | Bb | Eb |
| Cm | Eb | Bb | F |
| Cm | Eb | F | Ab |
| Cm7 | Fm7 | Dm7b5 | G7 |
| Cm7 | Abmaj7 | Fm7 | G7 |
| Cm6 | Fm6 | G7 | Cm6 |
| C5 | Eb5 | F5 | C5 |
| C5 | Bb5 | Ab5 | G5 |
| C5 | F5 | G5 | F5 |
| G7sus4 | % | Fmaj7/G | G7 |
| G7sus4 | G7 | C | % |
| Gsus4 | G | C | F |
| C7sus4 | Bb7sus4 |
| A7sus4 | D7sus4 | G7sus4 | C |
| G/B | C | Dm | F |
| F/C | C | F/C | C |
| F/G | C | F/G | C |
| Dm/C | G/B | C | % |
| Ab/C | Bb/D | Cm | % |
| B/A | E/G# | A | E |
| Fmaj7/C | G/C | C | % |
| E7 | A7 | D7 | G7 |
| E7 | Eb7 | D7 | Db7 |
| Em7 | Ebm7 | Dm7 | G7 |
| Em7b5 | A7 | Dm7 | G7 |
| Bm7 | Bbm7 | Am7 | D7 |
| Bm7b5 | E7 | Am | % |
| Cmaj7 Eb7 | Abmaj7 B7 | Emaj7 G7 | Cmaj7 |
| C F | G F |
| C G | Am F |
| Am F | C G |
| C Am | F G |
| Dm7 G7 | Cmaj7 |
| Dm7 G7 | Em7 A7 |
| C . . G/B | Am . F G |
feel: shuffle;| C | F | C | G |
feel: shuffle;| C7 | % | F7 | % |
feel: rock;| C | Eb | F | C |
feel: rock;| Am | C | D | F |
idiom: blues;| C | F | G | C |
`
  .trim()
  .split('\n')
  .filter((line) => !line.includes(' . '))
  .map((line) => line.replaceAll(';', '\n'));
