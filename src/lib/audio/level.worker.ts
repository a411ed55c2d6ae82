/** Brings what was rendered to the level of a file, away from the page. */
import { expose, transfer } from 'comlink';
import { levelled } from './level';

const work = {
  level(channels: readonly Float32Array<ArrayBuffer>[], rate: number) {
    levelled(channels, rate);
    return transfer(
      channels,
      channels.map(({ buffer }) => buffer),
    );
  },
};
export type Levelling = typeof work;

expose(work);
