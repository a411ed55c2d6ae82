/** `collections`: a collection by name, or every collection that holds some notes. */
import { z } from 'zod';
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
import { degreeName, type Note, noteName, parseNote } from 'corvel-core';
import { accept, refuse } from '../refusals';
import { collectionText, degreeText, noteText } from '../shapes';
import { question } from '../question';

const collectionOnRoot = z.object({
  root: noteText,
  collection: z.string().describe('lydian dominant'),
});

const request = z.union(
  [
    z.object({ name: collectionText }),
    z.object({
      notes: z.array(z.string().max(4)).min(1).max(12).describe('Notes the collection must hold'),
      root: z.string().max(4).optional().describe('Only collections on this root'),
    }),
  ],
  { error: 'state “name”, a text, or “notes”, a list of 1 to 12 note names' },
);

const collectionAnswer = collectionOnRoot.extend({
  notes: z.array(noteText),
  degrees: z.array(degreeText),
  modes: z.array(collectionOnRoot).describe('Begun on each of its notes, itself first'),
  parent: collectionOnRoot.optional().describe('The scale this is a mode of'),
  relative: collectionOnRoot.optional().describe('Its notes as major or minor'),
  aliases: z.array(z.string()),
  easier: collectionOnRoot.optional().describe('An enharmonic name with fewer accidentals'),
  triads: z.array(z.string()).describe('The triads inside it'),
  sevenths: z.array(z.string()).describe('The seventh chords inside it'),
});

const answer = z.union([
  collectionAnswer,
  z.object({ collections: z.array(collectionAnswer).describe('Smallest first') }),
]);

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

export const collections = question({
  summary:
    'A collection by its name with its modes and relations, or every collection that holds some notes.',
  request,
  answer,
  ask: (asked) => {
    if ('name' in asked) {
      const collection = parseCollection(asked.name);
      if (collection) return accept(describeCollection(collection));
      const message = `“${asked.name}” is not a collection: write a root and a name, like Eb major pentatonic.`;
      return refuse({ code: 'unknown_collection', message });
    }
    const notes: Note[] = [];
    for (const [index, text] of asked.notes.entries()) {
      const note = parseNote(text);
      if (note === null) return notANote(text, `notes.${index}`);
      notes.push(note);
    }
    const { root: rootText } = asked;
    const root = rootText === undefined ? null : parseNote(rootText);
    if (root === null && rootText !== undefined) return notANote(rootText, 'root');
    return accept({ collections: collectionsHolding(notes, root).map(describeCollection) });
  },
});
