/** What the notes on the neck can be labelled with. */
export const LABELS = ['degree', 'next', 'key', 'collection', 'name', 'finger'] as const;
export type Labels = (typeof LABELS)[number];

export const LABEL_NAMES: Readonly<Record<Labels, string>> = {
  degree: 'Degrees over now',
  next: 'Degrees over next',
  key: 'Degrees in the key',
  collection: 'Degrees in the collection',
  name: 'Note names',
  finger: 'Fingers',
};
