/**
 * Every key of the screens of a chart, in one table: the help sheet and the manual are made from it.
 * A screen says what its keys do by their names here.
 */
interface ShortcutRow {
  /** As `KeyboardEvent.key` gives it; several keys may do the same. */
  readonly keys: readonly string[];
  readonly shown: string;
  readonly does: string;
  readonly control?: boolean;
  /** Whether it goes on while it is held down; what is switched or begun is done once. */
  readonly steps?: boolean;
}

// A key means one thing on every screen where it means anything.
const ROWS = {
  next: {
    keys: ['ArrowRight', '.', 'PageDown'],
    shown: '→ . PageDown',
    does: 'Next chord; on a practice sheet, next note',
    steps: true,
  },
  previous: {
    keys: ['ArrowLeft', ',', 'PageUp'],
    shown: '← , PageUp',
    does: 'Previous chord; on a practice sheet, previous note',
    steps: true,
  },
  firstChord: { keys: ['Home'], shown: 'Home', does: 'First chord' },
  play: { keys: [' '], shown: 'Space', does: 'Play, or stop' },
  toPlay: { keys: ['P'], shown: 'Shift P', does: 'Play with the band' },
  slideZone: { keys: ['[', ']'], shown: '[ ]', does: 'Zone one fret down or up', steps: true },
  zone: { keys: ['1', '2', '3', '4', '5'], shown: '1 … 5', does: 'Zone 1 to zone 5' },
  zones: { keys: ['z'], shown: 'Z', does: 'All five zones' },
  wholeNeck: { keys: ['w'], shown: 'W', does: 'Whole neck, or the zone only' },
  toNeck: { keys: ['0'], shown: '0', does: 'Go to the neck, note by note, and back' },
  scales: { keys: ['v'], shown: 'V', does: 'Scales for this chord' },
  change: { keys: ['c'], shown: 'C', does: 'The change to the next chord, note by note' },
  targets: { keys: ['f'], shown: 'F', does: 'Targets on the neck, on or off' },
  only: {
    keys: ['y'],
    shown: 'Y',
    does: 'Only thirds, sevenths, roots, fifths or targets; all again',
  },
  intent: { keys: ['i'], shown: 'I', does: 'Intent: outline, lean, coast' },
  details: { keys: ['k'], shown: 'K', does: 'Key, tempo and title' },
  editBars: { keys: ['e'], shown: 'E', does: 'Edit the bars' },
  loop: {
    keys: ['Shift+ArrowRight', 'Shift+ArrowLeft', 'Shift+ArrowUp'],
    shown: 'Shift → ← ↑',
    does: 'Loop from this bar or a bar longer, a bar shorter, the whole form',
    steps: true,
  },
  tempo: {
    keys: ['+', '=', '-'],
    shown: '+ −',
    does: 'Two beats a minute faster or slower',
    steps: true,
  },
  tap: { keys: ['t'], shown: 'T', does: 'Tap the tempo' },
  listen: { keys: ['l'], shown: 'L', does: 'Listen to the guitar, on or off' },
  poorPass: { keys: ['x'], shown: 'X', does: 'That pass was poor: slower from the next on' },
  lineOnly: { keys: ['m'], shown: 'M', does: 'Only the line, the band muted' },
  loopMissed: { keys: ['j'], shown: 'J', does: 'Loop round the target you missed' },
  showMe: {
    keys: ['d'],
    shown: 'D',
    does: 'Hear the way into the target you missed, then play it',
  },
  anotherLine: { keys: ['a'], shown: 'A', does: 'Another line over the same targets' },
  fold: { keys: ['o'], shown: 'O', does: 'Settings of the stage' },
  nextBlock: { keys: ['>'], shown: '>', does: 'Next block of the session' },
  went: { keys: ['9', '8'], shown: '9 8', does: 'For the log: that went well, or was shaky' },
  walkBook: {
    keys: ['ArrowDown', 'ArrowUp'],
    shown: '↓ ↑',
    does: 'Next or previous chart or lick of the list; Enter opens it',
    steps: true,
  },
  typeChords: { keys: ['n'], shown: 'N', does: 'Type a new chart' },
  find: { keys: ['/'], shown: '/', does: 'Find a chart or a lick' },
  undo: { keys: ['z'], shown: 'Ctrl Z', does: 'Undo', control: true, steps: true },
  redo: { keys: ['y', 'Shift+z'], shown: 'Ctrl Y', does: 'Redo', control: true, steps: true },
  help: { keys: ['?'], shown: '?', does: 'These keys' },
} as const satisfies Readonly<Record<string, ShortcutRow>>;

type ShortcutId = keyof typeof ROWS;

/** What the keys of a screen do. */
export type Actions = { readonly [I in ShortcutId]?: ((key: string) => void) | undefined };

export const SHORTCUTS: readonly (ShortcutRow & { readonly id: ShortcutId })[] = (
  Object.keys(ROWS) as ShortcutId[]
).map((id) => ({ id, ...ROWS[id] }));

/** Keys that step or play wherever the focus stands: a closed list is walked up and down, not sideways. */
const EVERYWHERE: ReadonlySet<string> = new Set([
  ...['ArrowRight', 'ArrowLeft', 'PageDown', 'PageUp', ',', '.', ' '],
]);

const TEXT =
  'input:not([type="checkbox"], [type="radio"], [type="range"]), textarea, [contenteditable="true"]';
/** What the keys walk themselves. */
const WALKED = 'input[type="radio"], input[type="range"]';

/** Whether a key is one character, which a voice or a resting hand may type unmeant. */
const isCharacter = (key: string): boolean => key !== ' ' && [...key].length === 1;

/** Whether a key belongs to what has the focus rather than to the screen. */
function isTaken(target: EventTarget | null, key: string): boolean {
  if (target === null || !('closest' in target)) return false;
  const at = target as Element;
  if (at.closest(TEXT)) return true;
  if (at.closest(WALKED)) return EVERYWHERE.has(key);
  if (at.closest('input[type="checkbox"]')) return key === ' ';
  const list = at.closest<HTMLElement>('select');
  if (!list || EVERYWHERE.has(key)) return false;
  // On the stage a list that was just chosen from leaves the letters to the music.
  return !(list.dataset['keys'] === 'page' && isCharacter(key));
}

/** Runs the action a key press asks for, if any; single characters only where they are wanted. */
export function runShortcut(event: KeyboardEvent, actions: Actions, characters = true): void {
  const control = Boolean(event.ctrlKey || event.metaKey);
  if (event.altKey || event.defaultPrevented) return;
  if (isTaken(event.target, event.key)) return;
  if (!control && !characters && isCharacter(event.key)) return;
  const withShift = event.shiftKey && (control || event.key.startsWith('Arrow'));
  const plain = control ? event.key.toLowerCase() : event.key;
  const key = withShift ? `Shift+${plain}` : event.key;
  const found = SHORTCUTS.find(
    (row) => row.keys.includes(key) && (row.control ?? false) === control && actions[row.id],
  );
  if (!found) return;
  event.preventDefault();
  if (event.repeat && !found.steps) return;
  actions[found.id]?.(event.key);
}
