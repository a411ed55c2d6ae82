/** `collections`: a collection by name, or every collection that holds some notes. */
import type { z } from 'zod';
import {
  type Collection,
  collectionNotes,
  collectionsHolding,
  easierName,
  modesOf,
  parentCollection,
  parseCollection,
  relativeOf,
} from '$core/collections/collections';
import { seventhsInside, triadsInside } from '$core/collections/inside';
import { degreeName } from '$core/notes/degrees';
import { type Note, noteName, parseNote } from '$core/notes/notes';
import { accept, type EngineResult, refuse } from './refusals';
import type { collectionAnswer, collectionsAnswer, collectionsRequest } from './schemas';

const named = ({ root, kind }: Collection) => ({ root: noteName(root), collection: kind.name });

function describeCollection(collection: Collection): z.infer<typeof collectionAnswer> {
  const { kind } = collection;
  const parent = parentCollection(collection);
  const relative = relativeOf(collection);
  const easier = easierName(collection);
  return {
    ...named(collection),
    notes: collectionNotes(collection).map(noteName),
    degrees: kind.degrees.map(degreeName),
    modes: modesOf(collection).map(named),
    ...(parent ? { parent: named(parent) } : {}),
    ...(relative ? { relative: named(relative) } : {}),
    aliases: [...kind.aliases],
    ...(easier ? { easier: named(easier) } : {}),
    triads: triadsInside(collection).map(({ symbol }) => symbol),
    sevenths: seventhsInside(collection).map(({ symbol }) => symbol),
  };
}

const notANote = (text: string, path: string) =>
  refuse({
    code: 'invalid_request',
    message: `“${text}” is not a note: write it like Eb, F# or Abb.`,
    path,
  });

export function answerCollections(
  request: z.infer<typeof collectionsRequest>,
): EngineResult<z.infer<typeof collectionsAnswer>> {
  if ('name' in request) {
    const collection = parseCollection(request.name);
    if (collection) return accept(describeCollection(collection));
    const message = `“${request.name}” is not a collection: write a root and a name, like Eb major pentatonic.`;
    return refuse({ code: 'unknown_collection', message });
  }
  const notes: Note[] = [];
  for (const [index, text] of request.notes.entries()) {
    const note = parseNote(text);
    if (note === null) return notANote(text, `notes.${index}`);
    notes.push(note);
  }
  const root = request.root === undefined ? null : parseNote(request.root);
  if (root === null && request.root !== undefined) return notANote(request.root, 'root');
  return accept({ collections: collectionsHolding(notes, root).map(describeCollection) });
}
