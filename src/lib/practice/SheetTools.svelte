<!-- Playing a practice sheet, alone or over the band; its speed; files out and in. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Stop from '@lucide/svelte/icons/square';
  import type { Passage } from 'corvel-core';
  import PassageFiles from '$lib/notation/PassageFiles.svelte';
  import { getStudy } from '$lib/study/study.svelte';

  interface Props {
    readonly passage: Passage | null;
    readonly playing: boolean;
    speed: number;
    readonly onplay: () => void;
    readonly onopen: (passage: Passage) => void;
    /** Plays the sheet over the band. */
    readonly onband: () => void;
    /** Whether speed and files stand in sight on a phone. */
    readonly unfolded: boolean;
  }

  let { passage, playing, speed = $bindable(), onplay, onopen, onband, unfolded }: Props = $props();

  const study = getStudy();
  const SPEEDS = [0.5, 0.75, 1, 1.25] as const;
</script>

<button class="button-strong" onclick={onplay} title="Play or stop (Space)">
  {#if playing}<Stop size={15} aria-hidden="true" />{:else}<Play
      size={15}
      aria-hidden="true"
    />{/if}{playing ? 'Stop' : 'Play'}
</button>
<button class="button" onclick={onband} title="This sheet over the band (Shift P)"
  >With the band</button
>
<div class="contents {unfolded ? '' : 'max-sm:hidden'}">
  <label class="flex items-center gap-1 text-sm">
    <span class="sr-only">Speed</span>
    <select class="field" bind:value={speed}>
      {#each SPEEDS as one (one)}<option value={one}>{one * 100} %</option>{/each}
    </select>
  </label>
  <PassageFiles {passage} neck={study.neck} what="a melody" id="melody-file" {onopen} />
</div>
