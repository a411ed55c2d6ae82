import type { ClientInit, HandleClientError } from '@sveltejs/kit';

export const init: ClientInit = () => {
  // Browsers have no service worker where the connection is not safe.
  if (!('serviceWorker' in navigator) || navigator.serviceWorker.controller) return;
  // This page came before its worker; once there, it is told where the app has gone meanwhile.
  void navigator.serviceWorker.ready.then(({ active }) => {
    active?.postMessage(location.href);
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
