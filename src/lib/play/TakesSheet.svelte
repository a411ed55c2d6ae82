<!-- The takes of a chart: what was played last, to be kept; and what was kept, to be read and heard. -->
<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import {
    keepLick,
    deleteLick,
    dropSound,
    listTakes,
    restoreLick,
    soundAddress,
  } from '$lib/licks/api';
  import type { StoredLick } from '$lib/licks/messages';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { inform, message, warn } from '$lib/ui/messages.svelte';
  import { once } from '$lib/ui/once';
  import { bytesName } from '$lib/ui/amounts';
  import { counted } from '$core/words';

  interface Props {
    /** What the last pass says of the changes; null where none was heard. */
    readonly heard: string | null;
    /** Counts what was kept, so that it is listed. */
    readonly kept: number;
  }

  let { heard, kept }: Props = $props();

  const study = getStudy();
  const AWAY = 'The server does not answer. Nothing was changed.';
  let takes = $state.raw<readonly StoredLick[] | null>(null);
  let away = $state(false);

  async function look() {
    const found = await listTakes(study.id);
    away = found === null;
    if (found) takes = found;
  }
  $effect(() => {
    void kept;
    void look();
  });

  const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

  const toLick = once(async ({ title, tags, source, chart, notes }: StoredLick) => {
    const sent = await keepLick({ title, tags, source, chart, notes });
    if (sent.kind === 'kept') inform('It stands in the lick book as well.');
    else if (sent.kind === 'refused') warn(sent.message);
    else inform('It is kept here until the server is back, and goes into the lick book then.');
  });

  async function drop({ id }: StoredLick) {
    if (!(await dropSound(id))) warn(AWAY);
    await look();
  }

  async function remove({ id, title }: StoredLick) {
    if (!(await deleteLick(id))) {
      warn(AWAY);
      return;
    }
    await look();
    message(`“${title}” is deleted.`, {
      duration: 10_000,
      action: { label: 'Undo', onClick: () => void restoreLick(id).then(look) },
    });
  }
</script>

<div class="grid gap-2 text-sm" data-takes={takes?.length}>
  {#if heard}
    <p><strong>The last pass.</strong> {showSymbol(heard)}</p>
  {/if}
  {#if away}
    <p role="status">The server does not answer: the takes are not listed.</p>
  {:else if takes?.length === 0}
    <p class="text-ink-soft">
      No takes of this chart yet. Listen (L), play a pass, and keep it if you like it.
    </p>
  {/if}
  <ul class="grid max-h-96 gap-2 overflow-y-auto [scrollbar-width:thin]">
    {#each takes ?? [] as take (take.id)}
      <li class="border-t border-line pt-2" data-take={take.id}>
        <div class="flex items-baseline gap-2">
          <a class="min-w-0 flex-1 underline" href="/licks/{take.id}">{take.title}</a>
          <button
            class="button-quiet"
            aria-label="Delete {take.title}"
            onclick={() => void remove(take)}><Trash size={14} aria-hidden="true" /></button
          >
        </div>
        <p class="text-ink-soft">
          {take.made === '' ? '' : when.format(new Date(take.made))}, {counted(
            take.notes.length,
            'note',
          )}
          <button class="ml-2 underline" onclick={() => void toLick(take)}>To the lick book</button>
        </p>
        {#if take.sound !== null}
          <div class="mt-1 grid justify-items-start">
            <audio class="h-9 w-full" controls preload="none" src={soundAddress(take.id)}></audio>
            <button class="underline" onclick={() => void drop(take)}
              >Delete the sound, {bytesName(take.sound)}</button
            >
          </div>
        {/if}
      </li>
    {/each}
  </ul>
</div>
