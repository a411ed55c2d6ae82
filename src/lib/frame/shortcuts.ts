/**
 * Every key of the screens of a chart, in one table: the help sheet and the README are made from it.
 * A screen says what its keys do by their names here.
 */
interface ShortcutRow {
  /** As `KeyboardEvent.key` gives it; several keys may do the same. */
  readonly keys: readonly string[];
  readonly shown: string;
  readonly does: string;
  readonly control?: boolean;
}

// Where two rows share a key, the first that the screen gives something to do is run.
const ROWS = {
  chartBelow: { keys: ['ArrowDown'], shown: '↓', does: 'Next chart of the Book; Enter opens it' },
  chartAbove: { keys: ['ArrowUp'], shown: '↑', does: 'Chart before' },
  typeChords: { keys: ['n'], shown: 'N', does: 'Type a new chart' },
  findChart: { keys: ['/'], shown: '/', does: 'Find a chart' },
  nextChord: { keys: ['ArrowRight', '.', 'PageDown'], shown: '→ . PageDown', does: 'Next chord' },
  chordBefore: { keys: ['ArrowLeft', ',', 'PageUp'], shown: '← , PageUp', does: 'Chord before' },
  nextNote: {
    keys: ['ArrowRight', '.', 'PageDown'],
    shown: '→ . PageDown',
    does: 'Next note of the sheet',
  },
  noteBefore: { keys: ['ArrowLeft', ',', 'PageUp'], shown: '← , PageUp', does: 'Note before' },
  firstChord: { keys: ['Home'], shown: 'Home', does: 'First chord' },
  play: { keys: [' '], shown: 'Space', does: 'Play, or stop' },
  toPlay: { keys: ['P'], shown: 'Shift P', does: 'Play with the band' },
  loopLonger: {
    keys: ['Shift+ArrowRight'],
    shown: 'Shift →',
    does: 'Loop from this bar, or a bar longer',
  },
  loopShorter: { keys: ['Shift+ArrowLeft'], shown: 'Shift ←', does: 'Loop a bar shorter' },
  loopAll: { keys: ['Shift+ArrowUp'], shown: 'Shift ↑', does: 'Loop the whole form' },
  faster: { keys: ['+', '='], shown: '+', does: 'Two beats a minute faster' },
  slower: { keys: ['-'], shown: '−', does: 'Two beats a minute slower' },
  tap: { keys: ['t'], shown: 'T', does: 'Tap the tempo' },
  poorPass: { keys: ['x'], shown: 'X', does: 'That pass was poor: slower from the next on' },
  listen: { keys: ['l'], shown: 'L', does: 'Listen to the guitar, or no longer' },
  loopMissed: { keys: ['j'], shown: 'J', does: 'Loop round the target to listen for' },
  showMe: {
    keys: ['d'],
    shown: 'D',
    does: 'Corvel plays the way into the target to listen for, then you',
  },
  nextBlock: { keys: ['n'], shown: 'N', does: 'The next block of the session' },
  wentWell: { keys: ['9'], shown: '9', does: 'For the log: that went well' },
  wentShaky: { keys: ['8'], shown: '8', does: 'For the log: that was shaky' },
  lineOnly: { keys: ['m'], shown: 'M', does: 'Only the line, the band muted' },
  ahead: { keys: ['v'], shown: 'V', does: 'How early what comes is shown' },
  staff: { keys: ['s'], shown: 'S', does: 'Staff and tablature of the line' },
  fullScreen: { keys: ['f'], shown: 'F', does: 'Full screen' },
  fold: { keys: ['o'], shown: 'O', does: 'Settings of the stage, open or folded' },
  anotherLine: { keys: ['a'], shown: 'A', does: 'Another line over the same targets' },
  zoneDown: { keys: ['['], shown: '[', does: 'Zone one fret down' },
  zoneUp: { keys: [']'], shown: ']', does: 'Zone one fret up' },
  zone1: { keys: ['1'], shown: '1', does: 'Zone 1' },
  zone2: { keys: ['2'], shown: '2', does: 'Zone 2' },
  zone3: { keys: ['3'], shown: '3', does: 'Zone 3' },
  zone4: { keys: ['4'], shown: '4', does: 'Zone 4' },
  zone5: { keys: ['5'], shown: '5', does: 'Zone 5' },
  only: {
    keys: ['y'],
    shown: 'Y',
    does: 'Show only thirds, sevenths, roots, fifths, targets; all again',
  },
  toNeck: { keys: ['0'], shown: '0', does: 'To the neck, note by note, and back' },
  zones: { keys: ['z'], shown: 'Z', does: 'The five zones, with the box of every chord' },
  wholeNeck: { keys: ['w'], shown: 'W', does: 'Whole neck, or the zone only' },
  nextLens: { keys: ['v'], shown: 'V', does: 'Options of the next lens' },
  ownPentatonic: { keys: ['p'], shown: 'P', does: 'Own pentatonic over this chord' },
  chordTones: { keys: ['c'], shown: 'C', does: 'Chord tones over this chord' },
  intent: { keys: ['i'], shown: 'I', does: 'Intent: outline, lean, coast' },
  styles: { keys: ['j'], shown: 'J', does: 'A plan in one style' },
  crossing: { keys: ['x'], shown: 'X', does: 'Ladder of choices or of chord tones' },
  lane: { keys: ['u'], shown: 'U', does: 'The next lane under the bars' },
  modeNames: { keys: ['m'], shown: 'M', does: 'Modes by their own name or by parent scale' },
  targets: { keys: ['f'], shown: 'F', does: 'Targets on the neck, on or off' },
  practice: { keys: ['q'], shown: 'Q', does: 'Practice sheet' },
  layerBox: { keys: ['b'], shown: 'B', does: 'Layer: pentatonic box' },
  layerScale: { keys: ['s'], shown: 'S', does: 'Layer: scale position' },
  layerArpeggio: { keys: ['a'], shown: 'A', does: 'Layer: arpeggio' },
  layerTriad: { keys: ['r'], shown: 'R', does: 'Layer: triad' },
  layerGrip: { keys: ['g'], shown: 'G', does: 'Layer: grip' },
  layerHome: { keys: ['h'], shown: 'H', does: 'Layer: home' },
  oneOctave: { keys: ['o'], shown: 'O', does: 'One octave only' },
  labels: { keys: ['l'], shown: 'L', does: 'Label notes the next way' },
  names: { keys: ['n'], shown: 'N', does: 'Numerals or symbols large' },
  spelling: { keys: ['d'], shown: 'D', does: 'Spelling of this chord' },
  details: { keys: ['k'], shown: 'K', does: 'Key, tempo, transposing' },
  transposeUp: { keys: ['+'], shown: '+', does: 'Transpose a half step up' },
  transposeDown: { keys: ['-'], shown: '−', does: 'Transpose a half step down' },
  editBars: { keys: ['e'], shown: 'E', does: 'Edit the bars on the strip' },
  editText: { keys: ['t'], shown: 'T', does: 'Chart text' },
  morphOn: { keys: ['>'], shown: '>', does: 'The next quality, one note further' },
  morphBack: { keys: ['<'], shown: '<', does: 'The quality before' },
  undo: { keys: ['z'], shown: 'Ctrl Z', does: 'Undo', control: true },
  redo: { keys: ['y', 'Shift+z'], shown: 'Ctrl Y', does: 'Redo', control: true },
  help: { keys: ['?'], shown: '?', does: 'These keys' },
} as const satisfies Readonly<Record<string, ShortcutRow>>;

export type ShortcutId = keyof typeof ROWS;

/** What the keys of a screen do. */
export type Actions = { readonly [I in ShortcutId]?: (() => void) | undefined };

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

/** Whether a key belongs to what has the focus rather than to the screen. */
function isTaken(target: EventTarget | null, key: string): boolean {
  if (target === null || !('closest' in target)) return false;
  const at = target as Element;
  if (at.closest(TEXT)) return true;
  if (at.closest(WALKED)) return EVERYWHERE.has(key);
  if (at.closest('input[type="checkbox"]')) return key === ' ';
  return at.closest('select') !== null && !EVERYWHERE.has(key);
}

/** Whether a key is one character, which a voice or a resting hand may type unmeant. */
const isCharacter = (key: string): boolean => key !== ' ' && [...key].length === 1;

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
  actions[found.id]?.();
}
