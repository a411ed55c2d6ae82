/** Reading JSON that may be large: value by value, so that the first that is wrong ends it. */
import { JSONParser } from '@streamparser/json';

/** A text that is no JSON, or none with a list where it was looked for. */
export class NoList extends Error {}

/** The elements of the list at a path of a JSON text (`$.stints.*`), as they are read. */
export async function* elementsOf(
  pieces: AsyncIterable<Uint8Array>,
  path: string,
): AsyncGenerator<unknown> {
  let waiting: unknown[] = [];
  let listed = true;
  let ended = false;
  const parser = new JSONParser({ paths: [path], keepStack: false });
  parser.onValue = ({ value, key }) => {
    listed &&= typeof key === 'number';
    waiting.push(value);
  };
  parser.onEnd = () => (ended = true);
  for await (const piece of pieces) {
    try {
      parser.write(piece);
    } catch {
      throw new NoList();
    }
    if (!listed) throw new NoList();
    const read = waiting;
    waiting = [];
    yield* read;
  }
  if (!ended) throw new NoList();
}
