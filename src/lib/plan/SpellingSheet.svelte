<!-- A chord's spelling, its guide tones, its tensions, and what it does in the key. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import { type Chord, chordNotes } from 'corvel-core';
  import type { Cadence } from '$core/harmony/cadences';
  import { keyName } from '$core/keys/keys';
  import type { ChordReading } from '$core/harmony/reading';
  import { roleName } from '$core/harmony/roleWords';
  import { transpose } from '$core/notes/notes';
  import { showNote, showOver, showSymbol } from '$lib/ui/glyphs';
  import { showCadence } from '$lib/frame/strip';

  interface Props {
    readonly chord: Chord;
    readonly reading: ChordReading;
    readonly cadences: readonly Cadence[];
  }

  let { chord, reading, cadences }: Props = $props();

  const quality = $derived(chord.quality);
  const noteOf = (degree: (typeof quality.degrees)[number]) =>
    showNote(transpose(chord.root, degree));
  const facts = $derived.by(() => {
    const { key, numeral, diatonic, role } = reading;
    const inKey = key ? showSymbol(keyName(key)) : null;
    return [
      [
        'Guide tones',
        quality.guideTones
          .map((degree) => `${noteOf(degree)} (${showOver(chord, degree)})`)
          .join(', '),
      ],
      [
        'Tensions',
        quality.tensions
          .map((degree) => `${noteOf(degree)} (${showOver(chord, degree)})`)
          .join(', '),
      ],
      ['Bass', chord.bass === null ? '' : showNote(chord.bass)],
      ['In the key', inKey && numeral ? `${showSymbol(numeral)} of ${inKey}` : 'no single key'],
      [
        'Belongs',
        diatonic === null
          ? ''
          : diatonic
            ? 'to the key'
            : role
              ? showSymbol(roleName(role))
              : 'not to the key',
      ],
      ['Cadence', cadences.map(showCadence).join('; ')],
    ].filter(([, fact]) => fact !== '');
  });
</script>

<p class="heading mb-2 text-lg">{showSymbol(chord.symbol)}</p>
<table class="mb-2">
  <tbody>
    <tr class="heading text-base">
      {#each chordNotes(chord) as note (note)}<td class="pr-4">{showNote(note)}</td>{/each}
    </tr>
    <tr class="text-ink-soft">
      {#each quality.degrees as degree (degree)}<td class="pr-4">{showOver(chord, degree)}</td
        >{/each}
    </tr>
  </tbody>
</table>
<dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
  {#each facts as [name, fact] (name)}
    <dt class="text-ink-soft">{name}</dt>
    <dd>{fact}</dd>
  {/each}
</dl>
<TheoryLink part="keys-and-roles" of="keys and roles" />
