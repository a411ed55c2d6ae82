/** The menu in the head of a chart's screens: everything that is not asked for at every glance. */
import type { Snippet } from 'svelte';
import { paperReady } from '$lib/paper/prepared';

/** A sheet that is opened from the menu and stands under it. */
interface MenuSheet {
  /** Classes: its width and how it lays itself out. */
  readonly look: string;
  readonly content: Snippet;
}

export interface MenuItem {
  readonly name: string;
  /** The key that does the same, as it is written. */
  readonly keys?: string;
  readonly disabled?: boolean;
  /** Whether a line stands over it. */
  readonly begins?: boolean;
  /** Whether it is there on a phone only, where there is no room for it in the head. */
  readonly small?: boolean;
  /** What it does: one of these. */
  readonly run?: () => void;
  readonly href?: string;
  readonly sheet?: MenuSheet;
}

/** Prints the screen, once the menu is gone from the page, or saves what would be printed as a PDF. */
export const paperItems = (name: () => string): readonly MenuItem[] => [
  {
    name: 'Print',
    begins: true,
    run: () => setTimeout(() => void paperReady().then(() => window.print()), 100),
  },
  {
    name: 'Save as PDF',
    run: () => void import('$lib/paper/save').then((paper) => paper.savePdf(name())),
  },
];
