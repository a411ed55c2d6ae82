/** What the keys do to the bars. */
import type { Workbench } from './workbench.svelte';

export type Command = () => unknown;

/** A press of a key, as the browser tells it. */
export type Press = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'altKey' | 'ctrlKey' | 'metaKey'>;

const PLAIN: Readonly<Record<string, (workbench: Workbench) => unknown>> = {
  Enter: ({ startTyping }) => startTyping(),
  F2: ({ startTyping }) => startTyping(),
  Insert: ({ addBar }) => addBar(),
  '+': ({ addBar }) => addBar(),
  Delete: ({ remove }) => remove(),
  Backspace: ({ remove }) => remove(),
  s: ({ split }) => split(),
  '>': ({ stretch }) => stretch(1),
  '<': ({ stretch }) => stretch(-1),
  r: ({ toggleRepeat }) => toggleRepeat(),
  '1': ({ toggleEnding }) => toggleEnding(1),
  '2': ({ toggleEnding }) => toggleEnding(2),
  '3': ({ toggleEnding }) => toggleEnding(3),
  m: ({ toggleSection }) => toggleSection(),
  Home: ({ go }) => go(0),
  End: ({ go, bars }) => go(bars.length - 1),
};

function withControl(workbench: Workbench, key: string): Command | null {
  if (key === 'a') return workbench.selectAll;
  if (key === 'd') return workbench.duplicate;
  return null;
}

/**
 * What a press does; null for nothing.
 *
 * @param across the bar that is drawn under the cursor's (`down`) or over it
 */
export function commandOf(
  workbench: Workbench,
  { key, shiftKey, altKey, ctrlKey, metaKey }: Press,
  across: (down: boolean) => number,
): Command | null {
  if (ctrlKey || metaKey) return withControl(workbench, key.toLowerCase());
  if (altKey) {
    if (key === 'ArrowRight') return () => workbench.nudge(1);
    if (key === 'ArrowLeft') return () => workbench.nudge(-1);
    return null;
  }
  if (key === 'ArrowRight') return () => workbench.step(1, shiftKey);
  if (key === 'ArrowLeft') return () => workbench.step(-1, shiftKey);
  if (key === 'ArrowDown' || key === 'ArrowUp') {
    return () => workbench.go(across(key === 'ArrowDown'), 0, shiftKey);
  }
  // The first letter of a chord, a numeral, N.C. or % begins to type over the slot.
  if (/^[A-HNIV%]$/iu.test(key)) return () => workbench.startTyping(key);
  const plain = PLAIN[key];
  return plain ? () => plain(workbench) : null;
}
