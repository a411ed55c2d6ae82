/** Edits of the chords in a bar; each takes a sheet and gives another. */
import { at } from '../lists';
import type { LeadSheet, SheetSlot } from './leadSheet';
import { changeBar, sheetBars, writtenOut } from './sheetBars';

const changeSlots = (
  sheet: LeadSheet,
  bar: number,
  change: (slots: readonly SheetSlot[]) => readonly SheetSlot[],
): LeadSheet =>
  changeBar(sheet, bar, () => {
    const whole = writtenOut(sheetBars(sheet), bar);
    return { ...whole, slots: change(whole.slots) };
  });

/** Chords typed over a slot: the first takes its place, further ones follow it in the bar. */
export function typeOver(
  sheet: LeadSheet,
  bar: number,
  slot: number,
  texts: readonly string[],
): LeadSheet {
  if (texts[0] === '%' && texts.length === 1) {
    return changeBar(sheet, bar, (current) => ({ ...current, slots: [], same: 1 }));
  }
  return changeSlots(sheet, bar, (slots) => {
    const shares = slots[slot]?.shares ?? 1;
    const typed = texts.map((text) => ({ text, shares }));
    return slots.toSpliced(slot, 1, ...typed);
  });
}

/**
 * Puts one more chord behind a slot, with as much of the bar as that one has.
 *
 * @example editChart('| C | F |', (sheet) => insertSlot(sheet, 0, 1, 'G7')); // "| C G7 | F |"
 */
export const insertSlot = (sheet: LeadSheet, bar: number, slot: number, text: string): LeadSheet =>
  changeSlots(sheet, bar, (slots) =>
    slots.toSpliced(slot + 1, 0, { text, shares: slots[slot]?.shares ?? 1 }),
  );

/** Takes one chord out of a bar of several; the others share its time. */
export const removeSlot = (sheet: LeadSheet, bar: number, slot: number): LeadSheet =>
  changeSlots(sheet, bar, (slots) => (slots.length > 1 ? slots.toSpliced(slot, 1) : slots));

/**
 * Splits a slot in two halves of the same chord.
 *
 * @example editChart('| C | F |', (sheet) => splitSlot(sheet, 0, 0)); // "| C C | F |"
 */
export const splitSlot = (sheet: LeadSheet, bar: number, slot: number): LeadSheet =>
  changeSlots(sheet, bar, (slots) => {
    const odd = (slots[slot]?.shares ?? 1) % 2 === 1;
    const finer = odd ? slots.map((one) => ({ ...one, shares: one.shares * 2 })) : slots;
    const half = { ...at(finer, slot), shares: at(finer, slot).shares / 2 };
    return finer.toSpliced(slot, 1, half, half);
  });

const MOST_SHARES = 32;

/** Gives a chord more (or less) of its bar, a share at a time. */
export const stretchSlot = (sheet: LeadSheet, bar: number, slot: number, by: number): LeadSheet =>
  changeSlots(sheet, bar, (slots) =>
    slots.map((one, index) =>
      index === slot
        ? { ...one, shares: Math.max(1, Math.min(MOST_SHARES, one.shares + by)) }
        : one,
    ),
  );
