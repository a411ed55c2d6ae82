import { fail, redirect } from '@sveltejs/kit';
import { COOKIE_LASTS, PASSCODE_COOKIE, tryPasscode } from '$lib/server/passcode';
import type { Actions } from './$types';

/** Only a place on this server, as a browser would read it. */
function safeTarget(wanted: string | null, { origin }: URL): string {
  if (wanted === null || !URL.canParse(wanted, origin)) return '/';
  const target = new URL(wanted, origin);
  return target.origin === origin && !target.pathname.startsWith('//')
    ? target.pathname + target.search
    : '/';
}

export const actions: Actions = {
  default: async ({ request, cookies, getClientAddress, url }) => {
    const typed = (await request.formData()).get('passcode');
    const passcode = typeof typed === 'string' ? typed.slice(0, 200) : '';
    const attempt = tryPasscode(passcode, getClientAddress());
    if (attempt.kind === 'wait') {
      return fail(429, { message: 'Too many wrong passcodes. Wait a minute, then try again.' });
    }
    if (attempt.kind === 'wrong') return fail(403, { message: 'This is not the passcode.' });
    cookies.set(PASSCODE_COOKIE, attempt.cookie, {
      path: '/',
      httpOnly: true,
      sameSite: 'strict',
      secure: url.protocol === 'https:',
      ...(COOKIE_LASTS === null ? {} : { maxAge: COOKIE_LASTS }),
    });
    redirect(303, safeTarget(url.searchParams.get('to'), url));
  },
};
