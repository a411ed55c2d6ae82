/** The screens of a chart, in the order in which they stand in its head. */
export const SCREENS = [
  { id: 'plan', path: '', name: 'Plan', title: 'What to play over every chord' },
  { id: 'shapes', path: 'shapes', name: 'Shapes', title: 'Every shape of this chord' },
  { id: 'region', path: 'region', name: 'Overview', title: 'Every chord of the chart in one zone' },
  { id: 'practice', path: 'practice', name: 'Practice', title: 'Exercises and lines to read' },
  { id: 'play', path: 'play', name: 'Play', title: 'Play with the band (Shift P)' },
] as const;

export type Screen = (typeof SCREENS)[number]['id'];
