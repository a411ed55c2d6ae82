/** How much of a form is practised at once. */
export const EXTENTS = ['chord', 'two chords', 'two bars', 'section', 'form'] as const;
export type Extent = (typeof EXTENTS)[number];
