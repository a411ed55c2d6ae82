/** Cells: what is played in a pulse, for rhythms of each character; the common vocabulary of each. */
import { byName, type Weights } from './chance';

/** Which notes of a pulse are struck: `x.` the first of two; `ttt` three in the time of two. */
export type Pattern = string;

/** What is played in a pulse of so many notes, where much is said and where little is. */
export interface Cells {
  readonly busy: Weights<Pattern>;
  readonly calm: Weights<Pattern>;
}

/** Cells of two, three and four notes to a pulse. */
export type CellsBySize = Readonly<Record<2 | 3 | 4, Cells>>;

/** A line in eighths that runs. */
export const RUNNING: CellsBySize = {
  2: {
    busy: byName({ xx: 10, 'x.': 0.7, '.x': 0.7, ttt: 1 }),
    calm: byName({ xx: 4, 'x.': 2, '.x': 2, ttt: 0.4 }),
  },
  3: {
    busy: byName({ xxx: 7, 'x.x': 2, '.xx': 1 }),
    calm: byName({ xxx: 2, 'x.x': 3, 'x..': 1, '.xx': 1 }),
  },
  4: {
    busy: byName({ xxxx: 8, 'x.xx': 1.5, '.xxx': 1, 'xx.x': 0.7 }),
    calm: byName({ xxxx: 2, 'x.xx': 2, 'x.x.': 4, '.xx.': 0.7 }),
  },
};

/** Hooks: fewer notes, some of them long. */
export const HOOKS: CellsBySize = {
  2: {
    busy: byName({ xx: 6, 'x.': 2, '.x': 2 }),
    calm: byName({ xx: 2, 'x.': 3, '.x': 2, '..': 1 }),
  },
  3: {
    busy: byName({ xxx: 4, 'x.x': 4, 'x..': 1 }),
    calm: byName({ 'x.x': 4, 'x..': 3, '..x': 1 }),
  },
  4: {
    busy: byName({ xxxx: 2, 'x.xx': 3, 'xx.x': 2, 'x.x.': 2 }),
    calm: byName({ 'x.x.': 4, 'x...': 2, '..xx': 2, '.x.x': 1 }),
  },
};

/** Off the beat and even. */
export const SYNCOPATED: CellsBySize = {
  2: {
    busy: byName({ xx: 5, '.x': 4, 'x.': 2 }),
    calm: byName({ '.x': 5, 'x.': 2, xx: 2 }),
  },
  3: {
    busy: byName({ xxx: 4, '.xx': 2, 'x.x': 3 }),
    calm: byName({ 'x.x': 3, '.x.': 1, 'x..': 2, '..x': 2 }),
  },
  4: {
    busy: byName({ xxxx: 2, 'x.xx': 3, '.xx.': 2, 'x..x': 2 }),
    calm: byName({ 'x..x': 3, '..x.': 3, '.x..': 1, 'x.x.': 1 }),
  },
};

/** Long notes, and now and then a run. */
export const LYRICAL: CellsBySize = {
  2: {
    busy: byName({ xx: 5, ttt: 1.5, 'x.': 3 }),
    calm: byName({ 'x.': 5, '..': 3, xx: 1, '.x': 2 }),
  },
  3: {
    busy: byName({ xxx: 4, 'x.x': 3 }),
    calm: byName({ 'x..': 4, 'x.x': 2, '...': 1, '..x': 1 }),
  },
  4: {
    busy: byName({ xxxx: 4, 'x.xx': 2, 'xxx.': 1 }),
    calm: byName({ 'x...': 4, 'x.x.': 3, '....': 1, '..xx': 2 }),
  },
};

/** Sixteenths with holes in them. */
export const BROKEN: CellsBySize = {
  2: {
    busy: byName({ xx: 5, '.x': 3, 'x.': 2 }),
    calm: byName({ '.x': 3, 'x.': 3, '..': 1.5 }),
  },
  3: {
    busy: byName({ xxx: 2, 'x.x': 3, '.xx': 3 }),
    calm: byName({ 'x.x': 2, '.x.': 2, '..x': 2 }),
  },
  4: {
    busy: byName({ 'x.xx': 4, 'xx.x': 4, '.xxx': 2, xxxx: 1 }),
    calm: byName({ 'x..x': 3, '.xx.': 2, '..xx': 2, 'x.x.': 2 }),
  },
};
