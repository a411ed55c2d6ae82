<script lang="ts">
  import type { PageProps } from './$types';

  let { data, form }: PageProps = $props();

  const PAGES = {
    damaged: {
      title: 'The data file is damaged',
      says: 'Corvel cannot read its data file and has changed nothing in it. Going on sets the damaged file aside, next to the new one, so that nothing is thrown away.',
    },
    missing: {
      title: 'The data file is missing',
      says: 'There is no data file in the data folder, but there are backups of it. If you moved the file, put it back and look again.',
    },
    newer: {
      title: 'Written by a newer Corvel',
      says: 'This data file was written by a newer Corvel than this one, and is left as it is. Start the newer Corvel, or point CORVEL_DATA at another folder.',
    },
    'read-only': {
      title: 'The data folder is read-only',
      says: 'Corvel can read your charts but may not write to its data folder. Give it the right to write there, then look again.',
    },
    full: {
      title: 'The disk is full',
      says: 'Corvel can read your charts but not keep changes. Make room on the disk, then look again.',
    },
  } as const;

  const shown = $derived(PAGES[data.kind]);
  const mends = $derived(data.kind === 'damaged' || data.kind === 'missing');
</script>

<svelte:head><title>{shown.title} · Corvel</title></svelte:head>

<main class="mx-auto flex max-w-xl flex-col gap-4 p-8" data-problem={data.kind}>
  <h1 class="heading text-2xl">{shown.title}</h1>
  <p>{shown.says}</p>
  {#if form?.message}<p role="alert" class="text-now-text">{form.message}</p>{/if}
  {#if mends && data.backups.length > 0}
    <form method="POST" action="?/backup" class="flex flex-col gap-2">
      <h2 class="font-semibold">Go back to a backup, the newest first</h2>
      {#each data.backups as { name, says }, index (name)}
        <button class={index === 0 ? 'button-strong' : 'button'} name="backup" value={name}>
          {says}
        </button>
      {/each}
    </form>
  {/if}
  {#if data.kind === 'damaged'}
    <form method="POST" action="?/readable">
      <button class="button">Open everything that can still be read</button>
    </form>
  {:else if data.kind !== 'newer'}
    <form method="POST" action="?/again">
      <button class="button">Look again</button>
    </form>
  {/if}
  {#if data.kind === 'read-only' || data.kind === 'full'}
    <p><a class="underline" href="/">Read the charts meanwhile</a></p>
  {/if}
</main>
