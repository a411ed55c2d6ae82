/** Addresses of what is kept: who writes there changes what pages show. */

/** How a chart is looked at, when it was opened, and sounds show nowhere else. */
const SHOWN =
  /^\/api\/(?:charts|licks|takes|stints|cards|settings)(?!.*\/(?:view|opened|sound)$)(?:\/|$)/u;

/** Whether what is saved at an address shows on pages. */
export const isShown = (path: string): boolean => SHOWN.test(path);

/** Whether what is sent to an address takes in, or takes back, a whole book. */
export const isWholeBook = (path: string): boolean => /^\/api\/archive(?:\/|$)/u.test(path);

/** The pages that show what is saved at an address. */
export function pagesShowing(path: string): readonly string[] {
  const [, kind, id] = /^\/api\/(\w+)(?:\/([a-z0-9]+))?/u.exec(path) ?? [];
  switch (kind) {
    case 'charts':
      return id === undefined ? ['/'] : ['/', `/plan/${id}`];
    case 'licks':
    case 'takes':
      return id === undefined ? ['/licks'] : ['/licks', `/licks/${id}`];
    case 'stints':
      // The Book says what to play next.
      return ['/', '/log', '/drills'];
    case 'cards':
      return ['/drills'];
    case 'settings':
      return ['/settings'];
    default:
      return [];
  }
}
