<!-- Four actions under the thumb, on a phone. -->
<script lang="ts">
  import { addressOf } from '$lib/study/place';
  import { getStudy } from '$lib/study/study.svelte';

  const study = getStudy();
  const leaf = $derived(study.view.leaf);
  const LOOK = 'flex min-h-14 flex-1 items-center justify-center';
</script>

<!-- What scrolls ends above the bar. -->
<div class="h-14 shrink-0 sm:hidden print:hidden"></div>
<nav
  class="fixed inset-x-0 bottom-0 z-30 flex border-t border-line bg-sheet pb-[env(safe-area-inset-bottom)] sm:hidden print:hidden"
  aria-label="Chords and screens"
>
  <button class={LOOK} onclick={() => study.step(-1)}>‹ Back</button>
  <a class={LOOK} href={addressOf(study.id, 'play', study.place)}>Play</a>
  <button
    class={LOOK}
    aria-expanded={leaf !== null}
    onclick={() => study.look({ leaf: leaf === null ? 'scales' : null })}>Scales</button
  >
  <button class={LOOK} onclick={() => study.step(1)}>Next ›</button>
</nav>
