/** Drawing systems a few steps at a time: those in view first, the rest when the page is idle. */
import { afterPaint } from '$lib/ui/afterPaint.svelte';
import type { DrawnEvent, drawSystem } from './draw';
import type { System } from './systems';

/**
 * How long drawing may hold the page at a stretch, in milliseconds: what is in view, what is not, and while
 * something plays what comes, and what sounds already.
 */
const STRETCH = { near: 16, far: 8, coming: 1, due: 4 } as const;
/** How far outside the view systems are drawn ahead, and how many of them ahead of the one that plays. */
const AHEAD = { view: '240px', playing: 2 } as const;

const idle = () =>
  new Promise<unknown>((resolve) => {
    if (typeof requestIdleCallback === 'function') requestIdleCallback(resolve, { timeout: 1_000 });
    else setTimeout(resolve, 20);
  });
const breath = (milliseconds = 0) =>
  new Promise<unknown>((resolve) => setTimeout(resolve, milliseconds));
/** After the next frame: while something plays, a slow page is hardly ever idle. */
const frame = () =>
  new Promise<void>((resolve) => {
    afterPaint(resolve);
  });
const REST = { near: () => breath(), far: idle, coming: frame, due: frame } as const;
/** How long a sheet that plays waits before it looks again for what is to be drawn next. */
const LOOK = 250;

export interface Drawing {
  readonly systems: readonly System[];
  /** An element for each system. */
  readonly hosts: readonly HTMLDivElement[];
  readonly draw: typeof drawSystem;
  /** Whether something else is to be drawn by now, or nothing any more. */
  readonly isOver: () => boolean;
  /** The system that plays by now, its index; -1 while nothing does. */
  readonly playing: () => number;
  /** Called after each system with everything drawn so far, in order. */
  readonly ondrawn: (events: readonly DrawnEvent[]) => void;
}

/** The system whose turn it is. */
interface Turn {
  readonly index: number;
  readonly into: HTMLDivElement;
  readonly system: System;
}

/** Draws one system, giving way to the page; null where it was called off meanwhile. */
async function drawOne(
  { draw, isOver, playing }: Drawing,
  { index, into, system }: Turn,
  near: boolean,
): Promise<readonly DrawnEvent[] | null> {
  const steps = draw(into, system);
  let since = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    const sounding = playing();
    const pace = sounding < 0 ? (near ? 'near' : 'far') : index === sounding ? 'due' : 'coming';
    if (performance.now() - since < STRETCH[pace]) continue;
    await REST[pace]();
    if (isOver()) return null;
    since = performance.now();
  }
}

/** Draws all systems; ends early where it is called off. */
export async function drawSystems(drawing: Drawing): Promise<void> {
  const { systems, hosts, isOver, playing, ondrawn } = drawing;
  const inView = new Set<number>();
  const waiting = new Set(systems.keys());
  const found = new Map<number, readonly DrawnEvent[]>();
  let under = -1;
  const observer = new IntersectionObserver(
    (entries) => {
      for (const { target, isIntersecting } of entries) {
        const index = hosts.indexOf(target as HTMLDivElement);
        if (isIntersecting) {
          inView.add(index);
          continue;
        }
        inView.delete(index);
        // Of what was drawn before nothing may come into view.
        if (waiting.has(index) && index !== under) target.replaceChildren();
      }
    },
    { rootMargin: AHEAD.view },
  );
  /** What plays and what comes after it, then what is in view. */
  const urgent = () => {
    const from = playing();
    const isSoon = (index: number) => from >= 0 && from <= index && index <= from + AHEAD.playing;
    return [...waiting].find(isSoon) ?? [...waiting].find((index) => inView.has(index));
  };
  for (const one of hosts) observer.observe(one);
  try {
    await breath();
    while (waiting.size > 0) {
      const near = urgent();
      if (near === undefined) await (playing() >= 0 ? breath(LOOK) : idle());
      if (isOver()) return;
      if (near === undefined && playing() >= 0) continue;
      const [index = 0] = near === undefined ? waiting : [near];
      const into = hosts[index];
      const system = systems[index];
      if (!into || !system) return;
      under = index;
      const drawn = await drawOne(drawing, { index, into, system }, near !== undefined);
      if (!drawn) return;
      waiting.delete(index);
      found.set(index, drawn);
      ondrawn([...found].sort(([a], [b]) => a - b).flatMap(([, some]) => some));
    }
  } finally {
    observer.disconnect();
  }
}
