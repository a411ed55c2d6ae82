<!-- A state as a mark that reads without hue: empty, a dot, half, dashed, full. -->
<script lang="ts">
  import type { State } from '$core/log/stints';

  let { state }: { readonly state: State } = $props();
</script>

<svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true" class="stroke-ink">
  <rect
    x="2.5"
    y="2.5"
    width="15"
    height="15"
    rx="2"
    stroke-width={state === 'untouched' ? 1 : 1.8}
    stroke-dasharray={state === 'stale' ? '3 2.4' : undefined}
    class={state === 'solid'
      ? 'fill-ink'
      : state === 'untouched'
        ? 'fill-none stroke-line-strong'
        : 'fill-none'}
  />
  {#if state === 'new'}<circle cx="10" cy="10" r="2.6" class="fill-ink" stroke="none" />{/if}
  {#if state === 'stale'}<circle
      cx="10"
      cy="10"
      r="2.6"
      class="fill-none"
      stroke-width="1.4"
    />{/if}
  {#if state === 'shaky'}<path
      d="M2.5 17.5 V10 L10 13 L17.5 6 V17.5 Z"
      class="fill-ink"
      stroke="none"
    />{/if}
</svg>
