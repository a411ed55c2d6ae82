/** Amounts as they are said. */

const MEGABYTE = 2 ** 20;

/** `0.4 MB`, `12 MB`; less than that in kB. */
export function bytesName(bytes: number): string {
  if (bytes < MEGABYTE / 10) return `${Math.max(1, Math.round(bytes / 1024))} kB`;
  const megabytes = bytes / MEGABYTE;
  return `${megabytes < 10 ? megabytes.toFixed(1) : Math.round(megabytes)} MB`;
}

/** Seconds as a clock shows them: `3:07`. */
export const clockName = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
