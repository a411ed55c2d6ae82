/** The faces that printed words are set in, loaded when a page asks for them. */
import { create, type Font } from 'fontkit';
import sans400 from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import sans600 from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff?url';
import sans700 from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import sansMore from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff?url';
import serif400 from '@fontsource/source-serif-4/files/source-serif-4-latin-400-normal.woff?url';
import serif600 from '@fontsource/source-serif-4/files/source-serif-4-latin-600-normal.woff?url';
import serif700 from '@fontsource/source-serif-4/files/source-serif-4-latin-700-normal.woff?url';
import serifMore from '@fontsource/source-serif-4/files/source-serif-4-latin-ext-600-normal.woff?url';
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url';
import signs from '$lib/ui/fonts/corvel-signs.ttf?url';

interface FaceFile {
  readonly family: 'sans' | 'serif' | 'signs' | 'music';
  readonly weight: number;
  readonly url: string;
}

const FILES: readonly FaceFile[] = [
  { family: 'sans', weight: 400, url: sans400 },
  { family: 'sans', weight: 600, url: sans600 },
  { family: 'sans', weight: 700, url: sans700 },
  { family: 'serif', weight: 400, url: serif400 },
  { family: 'serif', weight: 600, url: serif600 },
  { family: 'serif', weight: 700, url: serif700 },
  { family: 'signs', weight: 400, url: signs },
  { family: 'music', weight: 400, url: bravura },
  { family: 'sans', weight: 401, url: sansMore },
  { family: 'serif', weight: 601, url: serifMore },
];

export interface Face {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly font: Font;
  /** Music is drawn as outlines: its signs are no words that anybody would copy. */
  readonly outlined: boolean;
}

const familyOf = (name: string): FaceFile['family'] | null => {
  if (/bravura/iu.test(name)) return 'music';
  if (/corvel signs/iu.test(name)) return 'signs';
  if (/serif 4|^serif$|academico/iu.test(name)) return 'serif';
  return /hyperlegible|sans|arial|helvetica/iu.test(name) ? 'sans' : null;
};

/** Loads files of faces, each once. */
export type LoadFace = (url: string) => Promise<Uint8Array>;

/** The faces to look for a sign in, the one asked for first, then whatever else has signs. */
export function facesFor(families: readonly string[], weight: number): readonly FaceFile[] {
  const asked = families.map(familyOf).filter((one) => one !== null);
  const order = [...new Set([...asked, 'sans', 'serif', 'signs'] as const)];
  return order.flatMap((family) =>
    FILES.filter((file) => file.family === family).sort(
      (a, b) => Math.abs(a.weight - weight) - Math.abs(b.weight - weight),
    ),
  );
}

/** Loaded faces by their files. */
export function createFaces(load: LoadFace) {
  const faces = new Map<string, Face>();

  async function face({ url, family, weight }: FaceFile): Promise<Face> {
    const known = faces.get(url);
    if (known) return known;
    const bytes = await load(url);
    // A file holds one face, never a collection.
    const font = create(bytes as never) as Font;
    const made = { name: `${family}-${weight}`, bytes, font, outlined: family === 'music' };
    faces.set(url, made);
    return made;
  }

  return {
    /** The words in runs of one face each; null where no face has one of their signs. */
    async runsOf(text: string, families: readonly string[], weight: number) {
      const files = facesFor(families, weight);
      const runs: { face: Face; text: string }[] = [];
      for (const sign of text) {
        const point = sign.codePointAt(0) ?? 0;
        const last = runs.at(-1);
        let found: Face | null = null;
        for (const file of files) {
          const one = await face(file);
          if (!one.font.hasGlyphForCodePoint(point)) continue;
          found = one;
          break;
        }
        if (!found) return null;
        if (last?.face === found) last.text += sign;
        else runs.push({ face: found, text: sign });
      }
      return runs;
    },
  };
}

export type Faces = ReturnType<typeof createFaces>;
