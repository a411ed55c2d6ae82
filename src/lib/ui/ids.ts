/** An id for something new, as the server takes it. */
export const freshId = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => (byte % 36).toString(36)).join(
    '',
  );
