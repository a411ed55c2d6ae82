/** Hands a file to the player through the browser's own download. */
export function download(file: File): void {
  const address = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = address;
  link.download = file.name;
  link.click();
  // The browser reads the address after the click has been handled.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
