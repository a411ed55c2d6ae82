/** Tables of the manual that are made from the program's own. `npm run tables` writes them. */
import { SHORTCUTS } from './shortcuts';

const row = (...cells: readonly string[]): string => `| ${cells.join(' | ')} |`;

/** Every key of the screens of a chart. */
export const shortcutTable = (): string =>
  [row('key', 'does'), '|---|---|', ...SHORTCUTS.map(({ shown, does }) => row(shown, does))].join(
    '\n',
  );
