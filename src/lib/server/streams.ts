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
