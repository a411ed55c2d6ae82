import type { ClientInit, HandleClientError } from '@sveltejs/kit';
import { dev } from '$app/environment';
import { whenQuiet } from '$lib/ui/quiet';

async function keepWhatIsOpen(): Promise<void> {
  const { serviceWorker } = navigator;
  await serviceWorker.register('/service-worker.js');
  const { active } = await serviceWorker.ready;
  // This page came before its worker did, and the app may have gone elsewhere since.
  active?.postMessage(location.href);
}

export const init: ClientInit = () => {
  // Browsers have no service worker where the connection is not safe.
  if (dev || !('serviceWorker' in navigator)) return;
  whenQuiet(() => {
    // Without it all works but being away from the server.
    keepWhatIsOpen().catch(() => undefined);
  });
};

/** Whether a page could not be fetched because no server answered. */
const isAway = (error: unknown): boolean =>
  error instanceof TypeError && /fetch|network|import/iu.test(error.message);

export const handleError: HandleClientError = ({ error, status }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  return {
    message: isAway(error)
      ? 'The server does not answer. What you have edited is kept in this browser and sent when it is back.'
      : 'Something went wrong on this page. What you have edited is kept; load the page anew.',
  };
};
