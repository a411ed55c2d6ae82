/** Editing the bars of a chart on the strip: where the cursor stands, and what each command does. */
import {
  type BarRange,
  sectionAt,
  type SectionSpan,
  sectionSpans,
  sheetBars,
} from '$core/chart/sheetBars';
import {
  barsAsText,
  barsFromText,
  copyBars,
  deleteBars,
  insertBars,
  moveBars,
  type Spot,
} from '$core/chart/editBars';
import { editChart } from '$core/chart/edit';
import { insertSlot, removeSlot, splitSlot, stretchSlot, typeOver } from '$core/chart/editSlots';
import { removeSection, setEnding, setRepeat, setSection } from '$core/chart/editSections';
import { readChart } from '$core/chart/form';
import { parseTyped } from '$core/chords/symbols';
import {
  emptyBar,
  readLeadSheet,
  type LeadSheet,
  type SheetBar,
  type SheetSection,
} from '$core/chart/leadSheet';
import { asTyped, fromTyped } from '$lib/ui/glyphs';

/** The text that is edited: read anew after each change. */
interface EditedText {
  readonly text: string;
  readonly edit: (change: { readonly text: string }) => void;
}

interface Cursor {
  readonly bar: number;
  readonly slot: number;
}

/** A chord being typed: over a slot, behind one in its bar, or in a bar of its own. */
interface Typing extends Cursor {
  readonly puts: 'over' | 'behind' | 'bar';
  readonly text: string;
  /** Whether the text is a first letter to go on from, rather than what stands there. */
  readonly begun: boolean;
}

/** A chord typed by the player's names or in small letters as it is written: `bbm7` is `Bbm7`. */
function asWritten(typed: string): string {
  const word = fromTyped(typed);
  return /^[a-g]/u.test(word) ? (parseTyped(word)?.symbol ?? word) : word;
}

type Edit = (sheet: LeadSheet) => LeadSheet;

const EMPTY: LeadSheet = { lines: [] };
const NEXT_NAMES = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

export function createWorkbench(document: EditedText) {
  let cursor = $state.raw<Cursor>({ bar: 0, slot: 0 });
  let anchor = $state(0);
  let typing = $state.raw<Typing | null>(null);
  let refusal = $state('');

  let lastGood: LeadSheet = EMPTY;
  const read = $derived(readLeadSheet(document.text));
  const sheet = $derived.by(() => {
    if (read) lastGood = read;
    return lastGood;
  });
  const bars = $derived(sheetBars(sheet));
  const spans = $derived(sectionSpans(sheet));
  const at = $derived.by((): Cursor => {
    const bar = Math.max(0, Math.min(cursor.bar, bars.length - 1));
    const slots = bars[bar]?.slots.length ?? 0;
    return { bar, slot: Math.max(0, Math.min(cursor.slot, slots - 1)) };
  });
  const selection = $derived.by((): BarRange => {
    const other = Math.max(0, Math.min(anchor, bars.length - 1));
    return { from: Math.min(at.bar, other), to: Math.max(at.bar, other) };
  });

  /** Applies an edit; false, with a sentence, when the chart could not be read after it. */
  function apply(edit: Edit): boolean {
    const text = read ? editChart(document.text, edit) : null;
    if (text === null) {
      refusal = 'Mend the text first: it cannot be read as it stands.';
      return false;
    }
    const result = readChart(text);
    if (!result.ok) {
      refusal = result.problems[0]?.message ?? 'This cannot be read.';
      return false;
    }
    refusal = '';
    document.edit({ text });
    return true;
  }

  function go(bar: number, slot = 0, extend = false) {
    cursor = { bar, slot };
    if (!extend) anchor = bar;
  }

  /** One slot on (or back), over bar lines. */
  function step(by: 1 | -1, extend: boolean) {
    const slots = bars[at.bar]?.slots.length ?? 0;
    const slot = at.slot + by;
    if (!extend && slot >= 0 && slot < slots) go(at.bar, slot);
    else if (at.bar + by >= 0 && at.bar + by < bars.length) {
      const before = bars[at.bar + by]?.slots.length ?? 1;
      go(at.bar + by, by < 0 && !extend ? before - 1 : 0, extend);
    }
  }

  const textAt = ({ bar, slot }: Cursor): string => {
    const found = bars[bar];
    if (!found) return '';
    return found.same > 0 ? '%'.repeat(found.same) : (found.slots[slot]?.text ?? '');
  };

  /** Types over the slot under the cursor, from its first letter where that was already typed. */
  function startTyping(letter?: string) {
    refusal = '';
    const begun = letter !== undefined;
    typing = { ...at, puts: 'over', text: letter ?? asTyped(textAt(at)), begun };
  }

  function put({ bar, slot, puts }: Typing, text: string): boolean {
    if (text === '' || (puts === 'over' && text === textAt({ bar, slot }))) return true;
    if (puts === 'over' && text !== '/') return apply((of) => typeOver(of, bar, slot, [text]));
    if (puts === 'bar') {
      const added: SheetBar =
        text === '%' ? { ...emptyBar([]), same: 1 } : emptyBar([{ text, shares: 1 }]);
      return apply((of) => insertBars(of, { after: bar - 1 }, [added]));
    }
    // A stroke gives the chord before it one more share.
    const before = puts === 'behind' ? slot - 1 : slot;
    if (text === '/') return apply((of) => stretchSlot(of, bar, before, 1));
    return apply((of) => insertSlot(of, bar, slot - 1, text));
  }

  /** Ends typing by a key; the key says where typing goes on. */
  function commit(text: string, then: 'stop' | 'behind' | 'bar' | 'next' | 'previous'): boolean {
    if (!typing) return true;
    const typed = typing;
    const word = asWritten(text.trim());
    if (!put(typed, word)) return false;
    const landed = word === '/' && typed.puts === 'behind' ? typed.slot - 1 : typed.slot;
    const { bar } = typed;
    go(bar, landed);
    typing = null;
    const slots = bars[bar]?.slots.length ?? 0;
    if (then === 'behind') {
      const more = landed + 1 < slots && typed.puts === 'over';
      typing = more
        ? {
            bar,
            slot: landed + 1,
            puts: 'over',
            text: asTyped(textAt({ bar, slot: landed + 1 })),
            begun: false,
          }
        : { bar, slot: landed + 1, puts: 'behind', text: '', begun: true };
      if (more) go(bar, landed + 1);
    } else if (then === 'bar') {
      const fresh = bar + 1 >= bars.length;
      typing = fresh
        ? { bar: bar + 1, slot: 0, puts: 'bar', text: '', begun: true }
        : {
            bar: bar + 1,
            slot: 0,
            puts: 'over',
            text: asTyped(textAt({ bar: bar + 1, slot: 0 })),
            begun: false,
          };
      if (!fresh) go(bar + 1);
    } else if (then !== 'stop') {
      step(then === 'next' ? 1 : -1, false);
      startTyping();
    }
    return true;
  }

  /** A name no section has yet. */
  const freshName = (): string => {
    const used = spans.map(({ section }) => section?.name);
    return NEXT_NAMES.find((name) => !used.includes(name)) ?? 'Next';
  };

  const begins = (bar: number): SectionSpan | undefined =>
    spans.find(({ from, section }) => from === bar && section !== null);

  function remove() {
    const several = selection.from !== selection.to;
    const slots = bars[at.bar]?.slots.length ?? 0;
    if (!several && slots > 1) {
      apply((of) => removeSlot(of, at.bar, at.slot));
      return;
    }
    const { from } = selection;
    if (apply((of) => deleteBars(of, selection)))
      go(Math.max(0, from - (from >= bars.length ? 1 : 0)));
  }

  /** Moves (or copies) the selection to a spot and keeps it selected. */
  function carry(span: BarRange, spot: Spot, copying: boolean) {
    const size = span.to - span.from;
    const target = 'before' in spot ? spot.before : spot.after + 1;
    const edit: Edit = (of) => (copying ? copyBars : moveBars)(of, span, spot);
    if (!apply(edit)) return;
    const from = !copying && target > span.to ? target - size - 1 : target;
    cursor = { bar: from + size, slot: 0 };
    anchor = from;
  }

  return {
    get bars() {
      return bars;
    },
    get spans() {
      return spans;
    },
    get cursor() {
      return at;
    },
    get selection() {
      return selection;
    },
    get typing() {
      return typing;
    },
    /** Why the last command did nothing; empty when it did. */
    get refusal() {
      return refusal;
    },
    /** Chords of the chart, latest first, to complete from. */
    get symbols() {
      return bars.flatMap(({ slots }) => slots.map(({ text }) => text)).reverse();
    },
    go,
    step,
    selectAll() {
      anchor = 0;
      cursor = { bar: bars.length - 1, slot: 0 };
    },
    startTyping,
    commit,
    cancel() {
      typing = null;
      refusal = '';
    },
    /** Begins a new bar behind the selection, empty until something is typed. */
    addBar() {
      refusal = '';
      typing = { bar: selection.to + 1, slot: 0, puts: 'bar', text: '', begun: true };
    },
    remove,
    split: () => apply((of) => splitSlot(of, at.bar, at.slot)),
    stretch: (by: number) => apply((of) => stretchSlot(of, at.bar, at.slot, by)),
    toggleRepeat() {
      const { from, to } = selection;
      const span = sectionAt(sheet, from);
      if (span && to > span.to) refusal = 'A repeat stays inside one section.';
      else {
        const repeated = bars.slice(from, to + 1).some((bar) => bar.closesRepeat !== null);
        apply((of) => setRepeat(of, selection, repeated ? null : 2));
      }
    },
    setTimes: (bar: number, times: number) =>
      apply((of) => {
        const opening = sheetBars(of).findLastIndex(
          (one, index) => index <= bar && one.opensRepeat,
        );
        const from = Math.max(opening, sectionAt(of, bar)?.from ?? 0);
        return setRepeat(of, { from, to: bar }, times);
      }),
    toggleEnding(pass: number) {
      const has = bars[selection.from]?.endings ?? [];
      const passes = has.includes(pass)
        ? has.filter((one) => one !== pass)
        : [...has, pass].sort((a, b) => a - b);
      apply((of) => setEnding(of, selection, passes));
    },
    /** Begins a section at the cursor, or joins the one that begins there to the one before. */
    toggleSection() {
      if (begins(at.bar)) apply((of) => removeSection(of, at.bar));
      else apply((of) => setSection(of, at.bar, { name: freshName(), repeats: 1, key: null }));
    },
    changeSection: (bar: number, section: SheetSection) =>
      apply((of) => setSection(of, bar, section)),
    carry,
    /** The selection one bar on or back. */
    nudge(by: 1 | -1) {
      const { from, to } = selection;
      if (by > 0 && to + 1 < bars.length) carry(selection, { after: to + 1 }, false);
      if (by < 0 && from > 0) carry(selection, { before: from - 1 }, false);
    },
    duplicate: () => carry(selection, { after: selection.to }, true),
    copied: () => barsAsText(sheet, selection),
    paste(text: string) {
      const pasted = barsFromText(text);
      if (!pasted) refusal = 'What was copied holds no bars that can be read.';
      else if (apply((of) => insertBars(of, { after: selection.to }, pasted))) {
        const from = selection.to + 1;
        cursor = { bar: from + pasted.length - 1, slot: 0 };
        anchor = from;
      }
    },
  };
}

export type Workbench = ReturnType<typeof createWorkbench>;
