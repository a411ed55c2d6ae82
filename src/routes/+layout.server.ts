import { toldSoFar } from '$lib/server/live';
import type { LayoutServerLoad } from './$types';

/** Up to what the server had told of changes when a page was made: what it tells later is not on it. */
export const load: LayoutServerLoad = () => ({ told: toldSoFar() });
