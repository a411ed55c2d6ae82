import { fail, redirect } from '@sveltejs/kit';
import { restoreBackup } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
  const { store } = locals;
  if (store.state === 'open') redirect(303, '/');
  return { backups: store.backups };
};

export const actions: Actions = {
  default: async ({ request }) => {
    const name = (await request.formData()).get('backup');
    const restored = typeof name === 'string' && (await restoreBackup(name));
    if (!restored) return fail(409, { message: 'This backup could not be opened. Try another.' });
    redirect(303, '/');
  },
};
