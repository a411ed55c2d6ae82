import type { ParamMatcher } from '@sveltejs/kit';

/** Pages of the manual that the app shows. */
export const match: ParamMatcher = (name) => ['manual', 'theory', 'serving'].includes(name);
