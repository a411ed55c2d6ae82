<!-- The chart as files. The menu comes when it is first opened. -->
<script lang="ts">
  import Share from '@lucide/svelte/icons/share';
  import type ExportChoices from './ExportChoices.svelte';

  let Choices = $state.raw<typeof ExportChoices | null>(null);

  async function open() {
    Choices = (await import('./ExportChoices.svelte')).default;
  }
</script>

{#if Choices}
  <Choices />
{:else}
  <button
    class="button-quiet text-sm"
    title="Export"
    aria-haspopup="menu"
    aria-expanded="false"
    onclick={open}
  >
    <Share size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Export</span>
  </button>
{/if}
