<!-- What the change does: the notes that hold, move, leave and arrive. -->
<script lang="ts">
  import type { Crossing } from '$core/crossings/crossing';
  import { showNote } from '$lib/ui/glyphs';

  interface Props {
    readonly crossing: Crossing;
  }

  let { crossing }: Props = $props();

  const list = (notes: readonly number[]) =>
    notes.map((note) => showNote(note as Parameters<typeof showNote>[0])).join(', ');
  const size = (halfSteps: number) => (Math.abs(halfSteps) === 1 ? 'half step' : 'whole step');
</script>

<section aria-label="The change" class="flex min-w-0 flex-col gap-1.5 text-sm">
  <h2 class="font-semibold">The change</h2>
  <dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
    {#if crossing.held.length > 0}
      <dt class="text-ink-soft">Hold</dt>
      <dd>{list(crossing.held)}</dd>
    {/if}
    {#if crossing.moves.length > 0}
      <dt class="text-ink-soft">Move</dt>
      <dd>
        {#each crossing.moves as { from, to, halfSteps }, index (from)}
          {index > 0 ? ', ' : ''}<span class={Math.abs(halfSteps) === 1 ? 'font-bold' : ''}>
            {showNote(from)}&nbsp;{halfSteps > 0 ? '↗' : '↘'}&nbsp;{showNote(to)}</span
          >
          <span class="text-ink-soft">{size(halfSteps)}</span>
        {/each}
      </dd>
    {/if}
    {#if crossing.leaves.length > 0}
      <dt class="text-ink-soft">Leave</dt>
      <dd>{list(crossing.leaves)}</dd>
    {/if}
    {#if crossing.arrives.length > 0}
      <dt class="text-ink-soft">Arrive</dt>
      <dd>{list(crossing.arrives)}</dd>
    {/if}
  </dl>
  {#if crossing.moves.length + crossing.leaves.length + crossing.arrives.length === 0}
    <p>Every note holds: the same notes serve both chords.</p>
  {/if}
</section>
