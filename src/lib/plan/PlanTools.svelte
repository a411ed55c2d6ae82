<!-- What the head of Plan offers besides the frame's own: key and tempo, bars, text, export. -->
<script lang="ts">
  import Music2 from '@lucide/svelte/icons/music-2';
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import PencilRuler from '@lucide/svelte/icons/pencil-ruler';
  import type { Editing } from '$lib/study/place';
  import { getStudy } from '$lib/study/study.svelte';
  import type ChartDetails from './ChartDetails.svelte';
  import ExportMenu from './ExportMenu.svelte';

  interface Props {
    readonly editing: Editing;
    detailed: boolean;
    readonly ontext: () => void;
    readonly onbars: () => void;
  }

  let { editing, detailed = $bindable(), ontext, onbars }: Props = $props();

  const study = getStudy();
  const { document } = study;

  // With all that transposing needs: it comes when it is first opened.
  let Details = $state.raw<typeof ChartDetails | null>(null);
  $effect(() => {
    if (!detailed || Details) return;
    void import('./ChartDetails.svelte').then((module) => (Details = module.default));
  });
</script>

{#if study.chart}
  {#if Details}
    <Details
      bind:open={detailed}
      text={document.text}
      chart={study.chart}
      home={study.key}
      idiom={study.reading?.idiom.name ?? 'jazz'}
      onedit={(text) => document.edit({ text })}
    />
  {:else}
    <button
      class="button-quiet text-sm"
      title="Key, tempo and transposing (K)"
      aria-haspopup="dialog"
      aria-expanded="false"
      onclick={() => (detailed = true)}
      ><Music2 size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Key and tempo</span
      ></button
    >
  {/if}
{/if}
<button
  class="button-quiet text-sm"
  onclick={onbars}
  aria-pressed={editing === 'bars'}
  title="Edit the bars (E)"
>
  <PencilRuler size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Bars</span>
</button>
<button
  class="button-quiet text-sm"
  onclick={ontext}
  aria-pressed={editing === 'text'}
  title="Chart text (T)"
>
  <PencilLine size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Text</span>
</button>
<ExportMenu />
