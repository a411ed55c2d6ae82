import { describeEngine } from '$lib/engine/openapi';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({ description: describeEngine() });
