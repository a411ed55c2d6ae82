/** Keys that act anywhere on a screen, except while typing. */
export interface Shortcut {
  /** As `KeyboardEvent.key` gives it; several keys may do the same. */
  readonly keys: readonly string[];
  readonly shown: string;
  readonly does: string;
  readonly control?: boolean;
  readonly run: () => void;
}

const TYPING = 'input, textarea, select, [contenteditable="true"], [role="menu"], [role="dialog"]';

const isTyping = (target: EventTarget | null): boolean =>
  target !== null && 'closest' in target && (target as Element).closest(TYPING) !== null;

/** Runs the shortcut a key press asks for, if any. */
export function runShortcut(event: KeyboardEvent, shortcuts: readonly Shortcut[]): void {
  if (event.altKey || event.defaultPrevented || isTyping(event.target)) return;
  const control = Boolean(event.ctrlKey || event.metaKey);
  const key = event.shiftKey && control ? `Shift+${event.key.toLowerCase()}` : event.key;
  const shortcut = shortcuts.find(
    (candidate) => (candidate.control ?? false) === control && candidate.keys.includes(key),
  );
  if (!shortcut) return;
  event.preventDefault();
  shortcut.run();
}
