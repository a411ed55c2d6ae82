/**
 * The rows of a long list that are in sight, and a few around them: what thousands of rows would take, no
 * page has. Short lists have all their rows, and so has paper.
 */
import {
  elementScroll,
  observeElementOffset,
  observeElementRect,
  observeWindowOffset,
  observeWindowRect,
  Virtualizer,
  windowScroll,
} from '@tanstack/virtual-core';
import { onMount, tick, untrack } from 'svelte';

/** Lists of no more rows than this are shown whole. */
const FEW = 120;
/** Rows of a long list before the page knows its own height, and those around what is in sight. */
const FIRST = 40;
const AROUND = 10;

interface WindowedList {
  readonly count: () => number;
  /** Height of a row before it is measured, in CSS pixels. */
  readonly estimate: number;
  /** The element that holds the rows. */
  readonly list: () => HTMLElement | undefined;
  /** Whether the list scrolls by itself; otherwise the page does. */
  readonly own?: boolean;
}

export function createWindowed({ count, estimate, list, own = false }: WindowedList) {
  let ready = $state(false);
  let printing = $state(false);
  /** Counts what the library says has changed. */
  let changes = $state(0);
  const long = $derived(count() > FEW && !printing);

  const shared = () => ({
    count: count(),
    estimateSize: () => estimate,
    overscan: AROUND,
    indexAttribute: 'data-at',
    // It tells of changes while effects run, too, which are not to follow them.
    onChange: () => untrack(() => (changes += 1)),
  });
  const within = () =>
    new Virtualizer<HTMLElement, HTMLElement>({
      ...shared(),
      getScrollElement: () => list() ?? null,
      scrollToFn: elementScroll,
      observeElementRect,
      observeElementOffset,
    });
  /** How far down the page the list begins. */
  const top = () => (list()?.getBoundingClientRect().top ?? 0) + window.scrollY;
  const ofPage = () =>
    new Virtualizer<Window, HTMLElement>({
      ...shared(),
      getScrollElement: () => window,
      scrollMargin: top(),
      scrollToFn: windowScroll,
      observeElementRect: observeWindowRect,
      observeElementOffset: observeWindowOffset,
    });
  let virtual: ReturnType<typeof within> | ReturnType<typeof ofPage> | null = null;

  onMount(() => {
    const print = (now: boolean) => () => (printing = now);
    const [before, after] = [print(true), print(false)];
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  });
  $effect(() => {
    if (!long || !list()) return;
    const made = own ? within() : ofPage();
    const end = made._didMount();
    made._willUpdate();
    virtual = made;
    ready = true;
    return () => {
      end();
      virtual = null;
      ready = false;
    };
  });

  const range = $derived.by((): { from: number; to: number; before: number; after: number } => {
    void changes;
    const all = count();
    if (!long) return { from: 0, to: all, before: 0, after: 0 };
    const items = ready ? (virtual?.getVirtualItems() ?? []) : [];
    const [first, last] = [items[0], items.at(-1)];
    const whole = virtual?.getTotalSize() ?? all * estimate;
    if (!virtual || !first || !last)
      return { from: 0, to: FIRST, before: 0, after: (all - FIRST) * estimate };
    const margin = virtual.options.scrollMargin;
    return {
      from: first.index,
      to: last.index + 1,
      before: first.start - margin,
      after: whole - (last.end - margin),
    };
  });

  /** Brings a row into the page, wherever it is, and answers its element. */
  async function bring(index: number): Promise<HTMLElement | null> {
    if (index < 0 || index >= count()) return null;
    const find = () => list()?.querySelector<HTMLElement>(`[data-at="${index}"]`) ?? null;
    if (!find()) virtual?.scrollToIndex(index, { align: 'auto' });
    for (let turn = 0; turn < 20 && !find(); turn += 1) {
      await tick();
      await new Promise(requestAnimationFrame);
    }
    return find();
  }

  /** The row a walk is on its way to, while it is brought into the page. */
  let aim: number | null = null;

  return {
    /** The rows to draw, from the one to before the other. */
    get from() {
      return range.from;
    },
    get to() {
      return range.to;
    },
    /** Pixels that the rows before and after them would take. */
    get before() {
      return range.before;
    },
    get after() {
      return range.after;
    },
    /** For each row that is drawn, with its place in `data-at`: it may be higher than was thought. */
    row(node: HTMLElement) {
      virtual?.measureElement(node);
    },
    /** The row a walk is on its way to; null where none is. */
    get aim() {
      return aim;
    },
    /**
     * Goes a row on or back from one, or from where a walk is going already, and answers its element; null
     * where the walk has gone on meanwhile: keys may come faster than rows are drawn.
     */
    async walk(here: number, by: 1 | -1): Promise<HTMLElement | null> {
      const next = Math.max(0, Math.min(count() - 1, (aim ?? here) + by));
      aim = next;
      const row = await bring(next);
      if (aim !== next) return null;
      aim = null;
      return row;
    },
  };
}
