/** Writing what is played as the player thinks of it. */
import type { Material } from '$core/lenses/material';
import { nameByParent } from '$core/lenses/modeWords';
import type { ModeNaming } from '$lib/settings/settings';
import { showSymbol } from '$lib/ui/glyphs';

/** `D♭ lydian dominant`, or `A♭ melodic minor from its fourth`. */
export const showMaterial = (material: Material, naming: ModeNaming): string =>
  showSymbol(
    naming === 'parent' && material.collection ? nameByParent(material.collection) : material.name,
  );

/** Short words for what a name is made of, longest first. */
const SHORT: readonly (readonly [RegExp, string])[] = [
  [/ minor sixth pentatonic$/u, 'm6 pent'],
  [/ major flat-sixth pentatonic$/u, ' ♭6 pent'],
  [/ major flat-third pentatonic$/u, ' ♭3 pent'],
  [/ minor pentatonic$/u, 'm pent'],
  [/ major pentatonic$/u, ' pent'],
  [/ dominant pentatonic$/u, '7 pent'],
  [/ minor sixth blues$/u, 'm6 blues'],
  [/ minor blues$/u, 'm blues'],
  [/ major blues$/u, ' blues'],
  [/ blended blues$/u, ' blues+'],
  [/ mixolydian ♭6$/u, ' mixo♭6'],
  [/ mixolydian$/u, ' mixo'],
  [/ lydian dominant$/u, ' lyd dom'],
  [/ lydian augmented$/u, ' lyd aug'],
  [/ phrygian dominant$/u, ' phr dom'],
  [/ half-whole diminished$/u, ' half-wh'],
  [/ whole-half diminished$/u, ' wh-half'],
  [/ locrian natural 2$/u, ' loc♮2'],
  [/ melodic minor$/u, ' mel min'],
  [/ harmonic minor$/u, ' harm min'],
  [/ harmonic major$/u, ' harm maj'],
  [/ whole tone$/u, ' whole t'],
  [/ altered$/u, ' alt'],
  [/ aeolian$/u, ' aeol'],
  [/ phrygian$/u, ' phr'],
  [/ dorian$/u, ' dor'],
  [/ lydian$/u, ' lyd'],
  [/ ionian$/u, ' ion'],
  [/ locrian$/u, ' loc'],
  [/ arpeggio$/u, ' arp'],
  [/ triad$/u, ''],
];

/** Width of a letter of the strip's small face, in pixels, a little generously. */
const LETTER = 6.2;

/** A name by rule in the room there is: whole, in short words, or its root alone; never cut. */
export function nameInRoom(name: string, room: number): string {
  const rule = SHORT.find(([pattern]) => pattern.test(name));
  const short = rule ? name.replace(rule[0], rule[1]) : name;
  const bare = short.split(' ')[0] ?? short;
  return [name, short, bare].find((one) => one.length * LETTER <= room) ?? '';
}
