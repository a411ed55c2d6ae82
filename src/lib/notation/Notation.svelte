<!-- Staff and tablature of a passage, drawn by a notation library that comes when it is needed. -->
<script lang="ts">
  import type { Passage } from '$core/phrases/passage';
  import type { DrawnEvent } from './draw';

  interface Props {
    readonly passage: Passage;
    /** The beat sounding; null when nothing plays. */
    readonly beat: number | null;
  }

  let { passage, beat }: Props = $props();

  let container = $state<HTMLDivElement>();
  let width = $state(0);
  let drawn: readonly DrawnEvent[] = [];
  let lit: readonly Element[] = [];
  let failed = $state(false);
  const LEAST_WIDTH = 320;

  $effect(() => {
    const into = container;
    const of = passage;
    const wide = Math.max(LEAST_WIDTH, width);
    if (!into || width === 0) return;
    let stale = false;
    void import('./draw')
      .then(async ({ drawPassage }) => {
        // The music font is loaded by its script; drawing before it would measure another.
        await document.fonts.ready;
        if (stale) return;
        drawn = drawPassage(into, of, wide);
        into.dataset['drawn'] = String(drawn.length);
      })
      .catch(() => (failed = true));
    return () => (stale = true);
  });

  $effect(() => {
    const at = beat;
    for (const element of lit) element.classList.remove('sounding');
    lit = at === null ? [] : (drawn.find(({ from, to }) => from <= at && at < to)?.elements ?? []);
    for (const element of lit) element.classList.add('sounding');
  });
</script>

{#if failed}
  <p class="text-now-text">The notation could not be drawn. The tablature can still be exported.</p>
{/if}
<div bind:clientWidth={width} class="min-w-0">
  <div
    bind:this={container}
    class="notation"
    role="img"
    aria-label="Staff and tablature: {passage.title}"
    data-notation
  ></div>
</div>
