/** The lens of modes: one collection by function, and its alternatives. */
import type { LensAnswer } from './lens';
import { collectionMaterial } from './material';
import { modesFor } from './modes';
import { modeWhy } from './modeWords';

/** The mode of the chord in its place. */
export const modeLens: LensAnswer = (context) =>
  modesFor(context).map((choice, index) => ({
    lens: 'mode',
    material: collectionMaterial(choice.collection),
    why: modeWhy(context.chord, choice),
    common: index === 0,
  }));
