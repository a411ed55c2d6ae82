/** What a route may be asked for: degrees to land on, and the shape of the whole. */

/** Which way a route goes. */
export const CONTOURS = ['level', 'rising', 'falling', 'arch'] as const;
export type RouteContour = (typeof CONTOURS)[number];

/** Degrees a player may prefer to land on; `guideTones` is whichever guide tone is nearest. */
export const PREFERENCES = ['guideTones', '1', '3', '5', '7', '9', '11', '13'] as const;
export type Preference = (typeof PREFERENCES)[number];
