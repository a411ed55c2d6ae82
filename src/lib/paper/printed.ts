/** The page as it would be printed, laid out beside the one on the screen. */
import { tick } from 'svelte';
import { readSheet } from './read';
import { paperReady } from './prepared';
import type { Sheet } from './drawings';

/** Makes rules for paper hold on the screen, and those for the screen not. */
function asPaper(rules: CSSRuleList): void {
  for (const rule of rules) {
    // A frame's rules are of its own window's kinds.
    if ('media' in rule) {
      const { media } = rule as CSSMediaRule;
      const text = media.mediaText;
      if (/\bprint\b/u.test(text)) media.mediaText = text.replace(/\b(?:only )?print\b/gu, 'all');
      else if (/\bscreen\b/u.test(text)) media.mediaText = text.replace(/\bscreen\b/gu, 'print');
    }
    if ('cssRules' in rule) asPaper((rule as CSSGroupingRule).cssRules);
  }
}

const loaded = (link: HTMLLinkElement): Promise<void> =>
  new Promise((resolve) => {
    link.addEventListener('load', () => resolve());
    link.addEventListener('error', () => resolve());
  });

/** Copies what was typed into fields, which a copy of the page leaves out. */
function copyFields(from: HTMLElement, to: HTMLElement): void {
  const copies = to.querySelectorAll('input, textarea');
  from.querySelectorAll<HTMLInputElement>('input, textarea').forEach((field, index) => {
    const copy = copies[index] as HTMLInputElement | undefined;
    if (copy && field.type !== 'file') copy.value = field.value;
  });
}

interface Room {
  readonly width: number;
  readonly height: number;
}

interface Layout {
  readonly room: Room;
  /** Whether the rules for paper hold, or those of the light theme on a screen. */
  readonly paper: boolean;
  /** What stands in the body of the page beside the one on the screen. */
  readonly fill: (page: Document) => void;
}

/** Lays something out beside the page, as it looks in its own window, and reads it. */
async function readLaidOut({ room, paper, fill }: Layout): Promise<Sheet> {
  const frame = document.createElement('iframe');
  frame.setAttribute('aria-hidden', 'true');
  frame.tabIndex = -1;
  frame.style.cssText = `position:fixed;left:-9999px;top:0;border:0;width:${room.width}px;height:${room.height}px`;
  document.body.append(frame);
  try {
    const page = frame.contentDocument;
    if (!page) throw new Error('The browser gave the printed page no room.');
    for (const { name, value } of document.documentElement.attributes)
      page.documentElement.setAttribute(name, value);
    if (!paper) {
      page.documentElement.classList.remove('dark');
      page.documentElement.removeAttribute('style');
    }
    const originals = document.head.querySelectorAll<HTMLLinkElement | HTMLStyleElement>(
      'link[rel="stylesheet"], style',
    );
    const styles = [...originals].map((original) => {
      const style = page.importNode(original, true);
      // Where it came from: its address as written may have been meant from another page.
      if ('href' in style) style.href = original.sheet?.href ?? style.href;
      return style;
    });
    const arrived = styles
      .filter((style) => style.tagName === 'LINK')
      .map((link) => loaded(link as HTMLLinkElement));
    page.head.append(...styles);
    fill(page);
    await Promise.all(arrived);
    if (paper) for (const sheet of page.styleSheets) asPaper(sheet.cssRules);
    await page.fonts.ready;
    return readSheet(page.body);
  } finally {
    frame.remove();
  }
}

/**
 * Reads the page as paper of a size would have it. The page prepares itself as it does for the browser's own
 * printing, and goes back to the screen when it has been read.
 *
 * @param room of the paper between its margins, in CSS pixels
 */
export async function readPrinted(room: Room): Promise<Sheet> {
  await paperReady();
  window.dispatchEvent(new Event('beforeprint'));
  try {
    await tick();
    return await readLaidOut({
      room,
      paper: true,
      fill: (page) => {
        const body = page.importNode(document.body, true);
        body.querySelectorAll('script, iframe').forEach((one) => one.remove());
        page.body.replaceWith(body);
        copyFields(document.body, body);
      },
    });
  } finally {
    window.dispatchEvent(new Event('afterprint'));
  }
}

/** Reads parts of the page under one another, as they look in the light theme on a screen of a size. */
export const readParts = (room: Room, parts: readonly Element[]): Promise<Sheet> =>
  readLaidOut({
    room,
    paper: false,
    fill: (page) => page.body.append(...parts.map((part) => page.importNode(part, true))),
  });
