/** Every collection by degree from its own root, and the other names players use for it. */

/** What belongs together: the modes of a scale, or scales of one make. */
export type CollectionFamily =
  | 'major modes'
  | 'melodic minor modes'
  | 'harmonic minor modes'
  | 'harmonic major modes'
  | 'pentatonics'
  | 'blues'
  | 'symmetric'
  | 'bebop';

/** Name, degrees, aliases. In the modal families each row is the next mode of the first row. */
type Row = readonly [name: string, degrees: string, ...aliases: string[]];

/** Every kind of collection with its degrees, family by family. */
export const COLLECTION_TABLE: Readonly<Record<CollectionFamily, readonly Row[]>> = {
  'major modes': [
    ['ionian', '1 2 3 4 5 6 7', 'major', 'major scale'],
    ['dorian', '1 2 b3 4 5 6 b7'],
    ['phrygian', '1 b2 b3 4 5 b6 b7'],
    ['lydian', '1 2 3 #4 5 6 7'],
    ['mixolydian', '1 2 3 4 5 6 b7'],
    ['aeolian', '1 2 b3 4 5 b6 b7', 'natural minor', 'minor', 'minor scale'],
    ['locrian', '1 b2 b3 4 b5 b6 b7'],
  ],
  'melodic minor modes': [
    ['melodic minor', '1 2 b3 4 5 6 7', 'jazz minor', 'ionian b3'],
    ['dorian b2', '1 b2 b3 4 5 6 b7', 'phrygian natural 6'],
    ['lydian augmented', '1 2 3 #4 #5 6 7', 'lydian #5'],
    [
      'lydian dominant',
      '1 2 3 #4 5 6 b7',
      'lydian b7',
      'mixolydian #4',
      'mixolydian #11',
      'acoustic',
    ],
    ['mixolydian b6', '1 2 3 4 5 b6 b7', 'mixolydian b13', 'aeolian dominant'],
    ['locrian natural 2', '1 2 b3 4 b5 b6 b7', 'locrian #2', 'aeolian b5', 'half-diminished'],
    ['altered', '1 b2 b3 b4 b5 b6 b7', 'super locrian', 'altered dominant'],
  ],
  'harmonic minor modes': [
    ['harmonic minor', '1 2 b3 4 5 b6 7', 'aeolian natural 7'],
    ['locrian natural 6', '1 b2 b3 4 b5 6 b7', 'locrian 6'],
    ['ionian #5', '1 2 3 4 #5 6 7', 'ionian augmented'],
    ['dorian #4', '1 2 b3 #4 5 6 b7', 'dorian #11'],
    ['phrygian dominant', '1 b2 3 4 5 b6 b7', 'mixolydian b2 b6', 'mixolydian b9 b13'],
    ['lydian #2', '1 #2 3 #4 5 6 7', 'lydian #9'],
    ['altered bb7', '1 b2 b3 b4 b5 b6 bb7', 'ultralocrian'],
  ],
  'harmonic major modes': [
    ['harmonic major', '1 2 3 4 5 b6 7', 'ionian b6'],
    ['dorian b5', '1 2 b3 4 b5 6 b7', 'locrian natural 2 natural 6'],
    ['phrygian b4', '1 b2 b3 b4 5 b6 b7'],
    ['lydian b3', '1 2 b3 #4 5 6 7', 'melodic minor #4'],
    ['mixolydian b2', '1 b2 3 4 5 6 b7', 'mixolydian b9'],
    ['lydian augmented #2', '1 #2 3 #4 #5 6 7'],
    ['locrian bb7', '1 b2 b3 4 b5 b6 bb7'],
  ],
  pentatonics: [
    ['major pentatonic', '1 2 3 5 6'],
    ['minor pentatonic', '1 b3 4 5 b7', 'pentatonic'],
    // The tonic's over V: V's third in place of the tonic's flat seventh.
    ['major-seventh minor pentatonic', '1 b3 4 5 7', 'minor pentatonic natural 7'],
    ['minor sixth pentatonic', '1 b3 4 5 6', 'minor 6 pentatonic', 'minor sixth'],
    ['dominant pentatonic', '1 2 3 5 b7'],
    ['major flat-sixth pentatonic', '1 2 3 5 b6', 'major pentatonic b6', 'major with flat sixth'],
    ['major flat-third pentatonic', '1 2 b3 5 6', 'major pentatonic b3', 'major with flat third'],
  ],
  blues: [
    ['minor blues', '1 b3 4 b5 5 b7', 'blues', 'blues scale'],
    ['major blues', '1 2 b3 3 5 6'],
    ['blended blues', '1 2 b3 3 4 b5 5 6 b7', 'mixed blues'],
    // The tonic's blues over IV: IV's third in place of the tonic's flat seventh.
    ['minor sixth blues', '1 b3 4 b5 5 6', 'minor 6 blues'],
  ],
  symmetric: [
    ['whole tone', '1 2 3 #4 #5 b7', 'whole-tone'],
    ['half-whole diminished', '1 b2 #2 3 #4 5 6 b7', 'half-whole', 'dominant diminished'],
    ['whole-half diminished', '1 2 b3 4 b5 b6 6 7', 'whole-half', 'diminished'],
    ['chromatic', '1 b2 2 b3 3 4 #4 5 b6 6 b7 7'],
  ],
  bebop: [
    ['bebop dominant', '1 2 3 4 5 6 b7 7', 'dominant bebop'],
    ['bebop major', '1 2 3 4 5 #5 6 7', 'major bebop'],
    ['bebop dorian', '1 2 b3 3 4 5 6 b7', 'dorian bebop'],
  ],
};
