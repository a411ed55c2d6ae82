/** Finding by words: every word of what is sought stands somewhere, whatever its case or accents. */
const folded = (text: string): string => text.toLocaleLowerCase().normalize('NFKD');

/** Whether a text holds every word that is sought. */
export function holdsWords(text: string, sought: string): boolean {
  const haystack = folded(text);
  return folded(sought)
    .split(/\s+/u)
    .every((word) => haystack.includes(word));
}
