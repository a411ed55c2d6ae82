/** The file chosen in an input that is not seen; it is emptied, so that the same file may be chosen again. */
export function chosenFile(input: HTMLInputElement): File | undefined {
  const file = input.files?.[0];
  input.value = '';
  return file;
}
