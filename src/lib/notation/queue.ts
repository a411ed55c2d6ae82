/** Drawing systems a few steps at a time: those in view first, the rest when the page is idle. */
import type { DrawnEvent, drawSystem } from './draw';
import type { System } from './systems';

/** How long drawing may hold the page at a stretch, in milliseconds: what is in view, what is not, and while it plays. */
const STRETCH = { near: 16, far: 8, playing: 1 } as const;
/** How far outside the view systems are drawn ahead. */
const AHEAD = '240px';

const idle = () =>
  new Promise<unknown>((resolve) => {
    if (typeof requestIdleCallback === 'function') requestIdleCallback(resolve, { timeout: 1_000 });
    else setTimeout(resolve, 20);
  });
const breath = (milliseconds = 0) =>
  new Promise<unknown>((resolve) => setTimeout(resolve, milliseconds));
/** How long a sheet that plays waits before it looks again for what comes into view. */
const LOOK = 250;

export interface Drawing {
  readonly systems: readonly System[];
  /** An element for each system. */
  readonly hosts: readonly HTMLDivElement[];
  readonly draw: typeof drawSystem;
  /** Whether something else is to be drawn by now. */
  readonly isOver: () => boolean;
  /** Whether it plays by now: then what is far from the view is not drawn meanwhile. */
  readonly isPlaying: () => boolean;
  /** Called after each system with everything drawn so far, in order. */
  readonly ondrawn: (events: readonly DrawnEvent[]) => void;
}

/** Draws one system, giving way to the page; null where it was called off meanwhile. */
async function drawOne(
  { draw, isOver, isPlaying }: Drawing,
  into: HTMLDivElement,
  system: System,
  near: boolean,
): Promise<readonly DrawnEvent[] | null> {
  const steps = draw(into, system);
  let since = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    const pace = isPlaying() ? 'playing' : near ? 'near' : 'far';
    if (performance.now() - since < STRETCH[pace]) continue;
    await (pace === 'near' ? breath() : idle());
    if (isOver()) return null;
    since = performance.now();
  }
}

/** Draws all systems; ends early where it is called off. */
export async function drawSystems(drawing: Drawing): Promise<void> {
  const { systems, hosts, isOver, isPlaying, ondrawn } = drawing;
  const inView = new Set<number>();
  const waiting = new Set(systems.keys());
  const found = new Map<number, readonly DrawnEvent[]>();
  const observer = new IntersectionObserver(
    (entries) => {
      for (const { target, isIntersecting } of entries) {
        const index = hosts.indexOf(target as HTMLDivElement);
        if (isIntersecting) inView.add(index);
        else inView.delete(index);
      }
    },
    { rootMargin: AHEAD },
  );
  for (const one of hosts) observer.observe(one);
  try {
    await breath();
    while (waiting.size > 0) {
      const near = [...waiting].find((index) => inView.has(index));
      if (near === undefined) await idle();
      if (isOver()) return;
      if (near === undefined && isPlaying()) {
        await breath(LOOK);
        continue;
      }
      const [next = 0] = near === undefined ? waiting : [near];
      const into = hosts[next];
      const system = systems[next];
      if (!into || !system) return;
      const drawn = await drawOne(drawing, into, system, near !== undefined);
      if (!drawn) return;
      waiting.delete(next);
      found.set(next, drawn);
      ondrawn([...found].sort(([a], [b]) => a - b).flatMap(([, some]) => some));
    }
  } finally {
    observer.disconnect();
  }
}
