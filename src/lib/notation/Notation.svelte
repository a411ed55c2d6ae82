<!--
  Staff and tablature of a passage, a system at a time: those in view first, the rest when the page
  has nothing else to do. On paper all of them, at the paper's width. Drawn by a notation library
  that comes when it is needed.
-->
<script lang="ts">
  import type { Passage } from '$core/phrases/passage';
  import type { DrawnEvent } from './draw';
  import { layOutSheet, PAPER_WIDTH, type System } from './systems';

  interface Props {
    readonly passage: Passage;
    /** The beat sounding; null when nothing plays. */
    readonly beat: number | null;
    /** Whether the degree of every note stands under it. */
    readonly degrees?: boolean;
  }

  let { passage, beat, degrees = false }: Props = $props();

  const LEAST_WIDTH = 280;
  /** How long drawing may hold the page at a stretch, in milliseconds. */
  const STRETCH = 8;
  /** How far outside the view systems are drawn ahead. */
  const AHEAD = '240px';

  let host = $state<HTMLDivElement>();
  let paper = $state<HTMLDivElement>();
  let width = $state(0);
  let failed = $state(false);
  let drawer = $state.raw<typeof import('./draw') | null>(null);
  let events = $state.raw<readonly DrawnEvent[]>([]);

  const systems = $derived(
    width === 0
      ? []
      : layOutSheet(passage, { width: Math.max(LEAST_WIDTH, width), medium: 'screen', degrees }),
  );

  const idle = () =>
    new Promise<unknown>((resolve) => {
      if (typeof requestIdleCallback === 'function')
        requestIdleCallback(resolve, { timeout: 1_000 });
      else setTimeout(resolve, 20);
    });
  const breath = () => new Promise<unknown>((resolve) => setTimeout(resolve));

  /** Draws one system, giving way to the page; false where it was called off meanwhile. */
  async function draw(into: HTMLDivElement, system: System, urgent: boolean, off: () => boolean) {
    if (!drawer) return null;
    const steps = drawer.drawSystem(into, system);
    let since = performance.now();
    for (;;) {
      const step = steps.next();
      if (step.done) return step.value;
      if (performance.now() - since < STRETCH) continue;
      await (urgent ? breath() : idle());
      if (off()) return null;
      since = performance.now();
    }
  }

  async function drawAll(shown: readonly System[], hosts: readonly HTMLDivElement[]) {
    const inView = new Set<number>();
    const waiting = new Set(shown.keys());
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
        const urgent = [...waiting].find((index) => inView.has(index));
        if (urgent === undefined) await idle();
        const [next = 0] = urgent === undefined ? waiting : [urgent];
        const into = hosts[next];
        const system = shown[next];
        const off = () => shown !== systems;
        if (!into || !system || off()) return;
        const drawn = await draw(into, system, urgent !== undefined, off);
        if (!drawn) return;
        waiting.delete(next);
        found.set(next, drawn);
        events = [...found].sort(([a], [b]) => a - b).flatMap(([, some]) => some);
      }
    } catch {
      failed = true;
    } finally {
      observer.disconnect();
    }
  }

  $effect(() => {
    const shown = systems;
    const hosts = host ? ([...host.children] as HTMLDivElement[]) : [];
    if (hosts.length === 0 || !drawer) return;
    events = [];
    void drawAll(shown, hosts);
  });

  $effect(() => {
    void import('./draw')
      // The music font is loaded by its script; drawing before it would measure another.
      .then(async (module) => {
        await document.fonts.ready;
        drawer = module;
      })
      .catch(() => (failed = true));
  });

  const NEAR = 1e-6;
  const covers = (beat: number) => (one: { readonly from: number; readonly to: number }) =>
    one.from <= beat + NEAR && beat < one.to - NEAR;
  const sounding = $derived(beat === null ? undefined : events.find(covers(beat)));

  /** The system that plays; it is kept in view with those after it. */
  const playing = $derived(beat === null ? -1 : systems.findIndex(covers(beat)));
  /** How wide the light under what sounds is, and how far left of its note it begins, in pixels. */
  const LIGHT = { width: 26, before: 7 } as const;
  $effect(() => {
    if (playing >= 0) host?.children[playing]?.scrollIntoView({ block: 'start' });
  });

  function layOnPaper() {
    if (!paper || !drawer) return;
    const sheet = layOutSheet(passage, { width: PAPER_WIDTH, medium: 'paper', degrees });
    for (const system of sheet) {
      const into = document.createElement('div');
      into.className = 'break-inside-avoid [&>svg]:block [&>svg]:h-auto [&>svg]:w-full';
      paper.append(into);
      drawer.drawWhole(into, system);
    }
  }
</script>

<svelte:window onbeforeprint={layOnPaper} onafterprint={() => paper?.replaceChildren()} />

{#if failed}
  <p class="text-now-text">The notation could not be drawn. The tablature can still be exported.</p>
{/if}
<div bind:clientWidth={width} class="relative min-w-0 print:hidden">
  <div
    bind:this={host}
    class="notation"
    role="img"
    aria-label="Staff and tablature: {passage.title}"
    data-notation
    data-systems={systems.length}
    data-drawn={events.length === 0 ? undefined : events.length}
  >
    {#each systems as { sheet }, index (index)}
      <div
        class="relative will-change-transform contain-strict"
        data-system={index}
        style:height="{sheet.heights.all}px"
      ></div>
    {/each}
  </div>
  <!-- Moved, not drawn anew: the staves under it are left alone while they play. -->
  {#if sounding && playing >= 0}
    {@const height = systems[playing]?.sheet.heights.all ?? 0}
    <div
      class="pointer-events-none absolute top-0 left-0 rounded-sm border-b-2 border-now bg-now/20 will-change-transform"
      style:width="{LIGHT.width}px"
      style:height="{height - 4}px"
      style:transform="translate({sounding.x - LIGHT.before}px, {playing * height}px)"
      data-sounding={sounding.from}
      aria-hidden="true"
    ></div>
  {/if}
</div>
<div bind:this={paper} class="notation hidden print:block" aria-hidden="true" data-paper></div>
