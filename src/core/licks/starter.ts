/** The lick book a player begins with, read from its rows. */
import type { Technique } from '../phrases/techniques';
import type { WrittenBeats } from '../time/units';
import type { KeptNote } from './kept';
import type { Lick } from './lick';
import { STARTER_ROWS } from './starterRows';

/** `1/3`, `2+2/3`, `0.5`. */
const timeOf = (text: string): WrittenBeats =>
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

const noteOf = (text: string): KeptNote => {
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
export const STARTER_LICKS: readonly Lick[] = STARTER_ROWS.trim()
  .split(/\n(?! )/u)
  .map((row) => {
    const [head = '', notes = ''] = row.split('\n  ');
    const [title = '', tags = '', ...chart] = head.split('; ');
    return {
      title,
      tags: tags.split(', '),
      source: 'Corvel',
      chart: chart.join('\n'),
      notes: notes.split('; ').map(noteOf),
    };
  });
