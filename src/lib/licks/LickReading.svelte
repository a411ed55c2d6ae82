<!-- What a lick says: chord by chord whether it is heard, what lands, how it ends. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import { backwardSays } from '$core/licks/reading';
  import { NOTE_ROLES } from '$core/licks/roles';
  import { showDegree, showNote, showSymbol } from '$lib/ui/glyphs';
  import type { LickEditing } from './editing.svelte';

  interface Props {
    readonly editing: LickEditing;
  }

  let { editing }: Props = $props();

  const reading = $derived(editing.reading);
  const roles = $derived(
    NOTE_ROLES.map((role) => ({
      role,
      count: reading?.notes.filter((note) => note.role === role).length ?? 0,
    })).filter(({ count }) => count > 0),
  );
  const plural = (role: string, count: number) =>
    `${count} ${role}${count === 1 || ['blue', 'passing', 'outside'].includes(role) ? '' : role.endsWith('h') ? 'es' : 's'}`;
  /** How many chords there are to tell apart. */
  const told = $derived(reading?.heard.chords[0]?.likeliest.length ?? 0);
  const strong = $derived(reading?.notes.filter((note) => note.strong) ?? []);
  const onTones = $derived(strong.filter((note) => note.role === 'chord tone').length);
</script>

<section aria-label="Reading" class="min-w-0" data-reading>
  <h3 class="heading">Without the band</h3>
  {#if !reading || reading.notes.length === 0}
    <p class="text-sm text-ink-soft">Type a note to see what it says about the chords.</p>
  {:else}
    <p class="text-sm">{reading.heard.sentence}</p>
    {#if told > 1}
      <ul class="mt-1 grid gap-0.5 text-sm">
        {#each reading.heard.chords as { index, chord, share, sentence } (index)}
          <li class="grid grid-cols-[4.5rem_4rem_1fr] items-baseline gap-2">
            <span class="heading truncate">{showSymbol(chord.symbol)}</span>
            <span
              class="relative h-2 self-center rounded border border-line-strong"
              aria-hidden="true"
            >
              <span
                class="absolute inset-y-0 left-0 rounded bg-ink"
                style:width="{Math.round(100 * share)}%"
              ></span>
            </span>
            <span>{showSymbol(sentence)}</span>
          </li>
        {/each}
      </ul>
    {/if}
    <div class="mt-2 flex items-baseline gap-3">
      <h3 class="heading">Landings</h3>
      <TheoryLink part="landings" of="landings" />
    </div>
    <ul class="text-sm">
      {#each reading.landings as { chord, sentence } (chord)}<li>{showSymbol(sentence)}</li>{/each}
    </ul>
    {#each backwardSays(reading) as says (says)}
      <p class="mt-1 text-sm" data-backward>{showSymbol(says)}</p>
    {/each}
    <p class="mt-1 text-sm">
      {roles.map(({ role, count }) => plural(role, count)).join(', ')}.
      {strong.length === 0
        ? 'No note begins on a strong beat.'
        : `${onTones} of ${strong.length} on strong beats are chord tones.`}
      {#if reading.last}
        It ends on {showNote(reading.last.note)}{reading.last.degree === null
          ? ''
          : `, ${showDegree(reading.last.degree)}`}.
      {/if}
    </p>
  {/if}
</section>
