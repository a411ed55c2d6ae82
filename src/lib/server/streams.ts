/** Answers that are told piece by piece, as they are asked for; what is no longer asked for is ended. */
export const streamOf = (pieces: AsyncGenerator<Uint8Array>): ReadableStream<Uint8Array> =>
  new ReadableStream({
    async pull(controller) {
      const piece = await pieces.next();
      if (piece.done) controller.close();
      else controller.enqueue(piece.value);
    },
    async cancel() {
      await pieces.return(undefined);
    },
  });

/** Pieces of so many bytes as one, with memory of its own: a thread may give it away. */
export function joined(pieces: readonly Uint8Array[], size: number): Uint8Array {
  const whole = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.byteLength;
  }
  return whole;
}
