<!-- What a line is made of: its plan kept while its notes change, its motif taken from a lick. -->
<script lang="ts">
  import { STYLED_KINDS } from '$core/exercises/kinds';
  import { listLicks } from '$lib/licks/api';
  import type { StoredLick } from '$lib/licks/messages';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const { kind } = $derived(practice.settings);
  let licks = $state.raw<readonly StoredLick[]>([]);
  async function learnLicks() {
    if (licks.length === 0) licks = (await listLicks()) ?? [];
  }
</script>

{#if STYLED_KINDS.has(kind)}
  <label class="flex min-h-8 items-center gap-1.5 text-sm" title="The same plan, with other notes">
    <input
      type="checkbox"
      name="idea"
      checked={practice.idea !== null}
      onchange={(event) => practice.keepIdea(event.currentTarget.checked)}
    />Keep the idea of the line
  </label>
  <label class="flex items-center gap-1.5 text-sm">
    <span class="text-ink-soft">Motif</span>
    <select
      class="field w-44"
      name="motif"
      value={practice.lick?.id ?? ''}
      onpointerdown={() => void learnLicks()}
      onfocus={() => void learnLicks()}
      onchange={(event) => {
        const { value } = event.currentTarget;
        practice.takeMotif(licks.find(({ id }) => id === value) ?? null);
      }}
    >
      <option value="">its own</option>
      {#each licks as { id, title } (id)}<option value={id}>of “{title}”</option>{/each}
    </select>
  </label>
{/if}
