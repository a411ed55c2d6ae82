/** A neck that is wider than the screen, scrolled to where the hand is. */
import type { Attachment } from 'svelte/attachments';
import type { Zone } from 'corvel-core';
import type { NeckLayout } from './layout';

interface Seen {
  /** In units of a pixel each. */
  readonly layout: NeckLayout;
  readonly zone: Zone;
  /** Pixels of the neck in sight. */
  readonly width: number;
}

/** Pixels kept in sight before the zone. */
const BEFORE = 60;

/** Keeps the zone in sight, on what scrolls; while there is none to keep the neck stays where it is. */
export const zoneInSight =
  (read: () => Seen | null): Attachment<HTMLElement> =>
  (scroller) => {
    const seen = read();
    if (!seen || seen.layout.width <= seen.width) return;
    const { layout, zone } = seen;
    const left = Math.min(layout.wire(zone.low), layout.wire(zone.high));
    scroller.scrollTo({ left: left - BEFORE });
  };
