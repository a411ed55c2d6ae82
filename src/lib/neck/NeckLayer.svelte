<!-- A layer over a drawn neck: what changes on it is drawn without the board under it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { NeckLayout } from './layout';

  interface Props {
    readonly layout: NeckLayout;
    /** Whether it is seen, or only drawn for when it will be. */
    readonly seen?: boolean;
    readonly children: Snippet;
  }

  let { layout, seen = true, children }: Props = $props();
</script>

<!-- Not quite transparent while it is unseen: what is wholly so is not drawn ahead. -->
<svg
  aria-hidden="true"
  viewBox="0 0 {layout.width} {layout.height}"
  class="pointer-events-none absolute inset-x-0 top-0 w-full will-change-[opacity] select-none"
  style:opacity={seen ? undefined : 0.001}
  data-seen={seen}
>
  {@render children()}
</svg>
