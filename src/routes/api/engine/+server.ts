import { json } from '@sveltejs/kit';
import { describeEngine } from '$lib/engine/openapi';

export const GET = () => json(describeEngine());
