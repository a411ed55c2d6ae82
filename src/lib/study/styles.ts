/** Plans in one style, and what the styles are called. */
import { type Chart, STANDARD_NECK, type Style } from 'corvel-core';
import type { Reading } from '$core/harmony/reading';
import { propose } from '$core/lenses/styles';
import { alignPlan } from './align';
import { takeProposal } from './choices';
import { EMPTY_PLAN, type Plan } from './plan';

/** A new plan that takes a style for a whole chart. */
export function planInStyle(chart: Chart, reading: Reading, style: Style): Plan {
  const all = chart.chords.map(({ index }) => index);
  return takeProposal(
    alignPlan(EMPTY_PLAN, chart, STANDARD_NECK),
    propose(chart, reading, style),
    all,
  );
}

export const STYLE_NAMES: Readonly<Record<Style, readonly [name: string, says: string]>> = {
  'one-scale': ['One scale', 'One scale throughout; some changes won’t be heard.'],
  'own-pentatonics': ['Own pentatonics', 'Each chord’s own five notes, its triad among them.'],
  'chord-tones': ['Chord tones first', 'Arpeggios where it matters, the key’s scale in between.'],
  modes: ['Modes', 'A full scale for each chord, by what it does in the key.'],
  'harmonic-minor': [
    'One harmonic minor',
    'The tonic’s harmonic minor over iiø, V and i alike; elsewhere modes.',
  ],
  'melodic-minors': [
    'Three melodic minors',
    'One each over iiø, V and i, whose roots spell the iv; elsewhere modes.',
  ],
  chains: ['Chains', 'One pentatonic shape, shifted with the chords.'],
  blues: ['Blues', 'Key-centre blues over I, IV and V.'],
};
