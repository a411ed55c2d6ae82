<script lang="ts">
  import type { PageProps } from './$types';

  let { data, form }: PageProps = $props();
</script>

<svelte:head><title>Data file damaged · Corvel</title></svelte:head>

<main class="mx-auto flex max-w-xl flex-col gap-4 p-8">
  <h1 class="heading text-2xl">The data file is damaged</h1>
  <p>
    Corvel cannot read its data file and has changed nothing in it. Going back to a backup sets the
    damaged file aside, next to the new one, so that nothing is thrown away.
  </p>
  {#if form?.message}<p role="alert" class="text-now-text">{form.message}</p>{/if}
  {#if data.backups.length === 0}
    <p>There is no backup yet. Move the file away from the data folder and start Corvel again.</p>
  {:else}
    <form method="POST" class="flex flex-col gap-2">
      {#each data.backups as backup, index (backup)}
        <button class={index === 0 ? 'button-strong' : 'button'} name="backup" value={backup}>
          Go back to {backup.replace('.sqlite', '')}
        </button>
      {/each}
    </form>
  {/if}
</main>
