<!-- The whole book as one file: out, and in again with a look at what would change. -->
<script lang="ts">
  import { askAnew } from '$lib/ui/anew';
  import { message } from '$lib/ui/messages.svelte';
  import { messageOf, reached } from '$lib/ui/server';
  import { chosenFile } from '$lib/ui/chosenFile';

  type Mode = 'merge' | 'replace';

  interface Props {
    /** When the archive was taken in that can be taken back; null where there is none. */
    readonly taken: string | null;
  }

  let { taken }: Props = $props();

  let file = $state.raw<File | null>(null);
  let mode = $state<Mode>('merge');
  let says = $state('');
  let problem = $state('');

  async function send(preview: boolean): Promise<string | null> {
    if (!file) return null;
    problem = '';
    const response = await fetch(`/api/archive?mode=${mode}${preview ? '&preview=1' : ''}`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: file,
    }).catch(() => null);
    if (!response) problem = 'The server does not answer. Nothing was changed.';
    else if (!response.ok) problem = await messageOf(response);
    else return ((await response.json()) as { sentence: string }).sentence;
    return null;
  }
  async function look(to: File | null, by: Mode) {
    [file, mode] = [to, by];
    says = (await send(true)) ?? '';
  }
  async function take() {
    const done = await send(false);
    if (done === null) return;
    file = null;
    message(`Imported. ${done}`, {
      duration: 10_000,
      action: { label: 'Undo', onClick: () => void takeBack() },
    });
    await askAnew();
  }
  async function takeBack() {
    const response = await reached('/api/archive/back', 'POST');
    if (!response) problem = 'The server does not answer. Nothing was changed.';
    else if (!response.ok) problem = await messageOf(response);
    else {
      message('Everything is as it was before the copy was opened. What you changed since stays.');
      await askAnew();
    }
  }
  const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
</script>

<section aria-labelledby="whole-book" class="print:hidden" data-whole-book>
  <h2 id="whole-book" class="heading text-xl">The whole book</h2>
  <p class="mt-1 text-sm">
    Charts, plans, licks, log, cards and settings in one zip of JSON and MusicXML.
  </p>
  <div class="mt-2 flex flex-wrap items-center gap-2 text-sm">
    <a class="button" href="/api/archive" download>Save a copy</a>
    <label class="button cursor-pointer">
      Open a copy…
      <input
        class="sr-only"
        type="file"
        name="archive"
        accept=".zip,application/zip"
        onchange={(event) => void look(chosenFile(event.currentTarget) ?? null, mode)}
      />
    </label>
  </div>
  {#if file && !problem}
    <fieldset class="mt-2 text-sm">
      <legend class="sr-only">Import as</legend>
      <label class="mr-4"
        ><input
          type="radio"
          name="archive-mode"
          checked={mode === 'merge'}
          onchange={() => void look(file, 'merge')}
        /> Merge with what is here; the later version of each stays</label
      >
      <label
        ><input
          type="radio"
          name="archive-mode"
          checked={mode === 'replace'}
          onchange={() => void look(file, 'replace')}
        /> Replace everything</label
      >
    </fieldset>
    <p class="mt-1 text-sm" role="status" data-archive-preview>{says}</p>
    <button class="button-strong mt-1" onclick={() => void take()}>
      {mode === 'merge' ? 'Merge' : 'Replace everything'}
    </button>
    <button class="button-quiet" onclick={() => (file = null)}>Cancel</button>
  {/if}
  {#if taken !== null && !file}
    <p class="mt-1 text-sm" data-taken>
      A copy was imported on {when.format(new Date(taken))}.
      <button class="underline" onclick={() => void takeBack()}>Undo that</button>
    </p>
  {/if}
  {#if problem}<p class="mt-1 text-sm text-now-text" role="alert">{problem}</p>{/if}
</section>
