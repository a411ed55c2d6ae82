<!-- How much of a change is said: three bars for outline, two for lean, one for coast. -->
<script lang="ts">
  import type { Intent } from '$core/lenses/lens';
  import { INTENT_NAMES } from '$lib/study/choices';

  interface Props {
    readonly intent: Intent;
  }

  let { intent }: Props = $props();

  const LIT: Readonly<Record<Intent, number>> = { outline: 3, lean: 2, coast: 1 };
</script>

<span
  class="inline-flex shrink-0 items-end gap-px"
  role="img"
  title="{INTENT_NAMES[intent][0]}: {INTENT_NAMES[intent][1]}"
>
  {#each [1, 2, 3] as bar (bar)}
    <span
      class="w-[3px] {bar <= LIT[intent] ? 'bg-current' : 'bg-current/25'}"
      style:height="{3 + bar * 2}px"
    ></span>
  {/each}
</span>
