/** Brings what was rendered to the level of a file and writes it as one, away from the page. */
import { expose, transfer } from 'comlink';
import { levelled } from './level';
import { wavOf } from './wav';

const work = {
  write(channels: readonly Float32Array<ArrayBuffer>[], rate: number) {
    levelled(channels, rate);
    const bytes = wavOf(channels, rate);
    return transfer(bytes, [bytes.buffer]);
  },
};
export type Writing = typeof work;

expose(work);
