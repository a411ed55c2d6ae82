import { fail, redirect } from '@sveltejs/kit';
import { describeBackup } from '$lib/server/backups';
import { dataFolder } from '$lib/server/folder';
import { restoreBackup, restoreReadable, tryAgain } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { store } }) => {
  if (store.state === 'closed') {
    const folder = dataFolder();
    const backups = store.backups.map((name) => ({ name, says: describeBackup(folder, name) }));
    return { kind: store.kind, backups };
  }
  if (store.limited !== null) return { kind: store.limited, backups: [] };
  redirect(303, '/');
};

export const actions: Actions = {
  backup: async ({ request }) => {
    const name = (await request.formData()).get('backup');
    const restored = typeof name === 'string' && (await restoreBackup(name));
    if (!restored) return fail(409, { message: 'This backup could not be opened. Try another.' });
    redirect(303, '/');
  },
  readable: async () => {
    if (!(await restoreReadable())) return fail(409, { message: 'Nothing of it could be opened.' });
    redirect(303, '/');
  },
  again: async () => {
    if (!(await tryAgain())) return fail(409, { message: 'It is still as it was.' });
    redirect(303, '/');
  },
};
