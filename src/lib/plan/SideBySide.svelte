<!-- Two choices over a chord side by side: what each covers, lacks, adds and costs. -->
<script lang="ts">
  import type { Chord, Note, Option } from 'corvel-core';
  import { tensionsOver } from '$core/lenses/options';
  import { pitchClass } from '$core/notes/notes';
  import { showMaterial } from '$lib/frame/material';
  import type { ModeNaming } from '$lib/settings/settings';
  import { showNote, showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly chord: Chord;
    readonly one: Option;
    readonly other: Option;
    readonly naming: ModeNaming;
    readonly onrelease: () => void;
  }

  let { chord, one, other, naming, onrelease }: Props = $props();

  const notes = (list: readonly Note[]) => (list.length > 0 ? list.map(showNote).join(' ') : '–');
  const onlyIn = (here: Option, there: Option) =>
    here.material.notes.filter(
      (note) => !there.material.notes.some((that) => pitchClass(that) === pitchClass(note)),
    );
  const rows = (here: Option, there: Option): readonly (readonly [string, string])[] => [
    ['Over the chord', tensionsOver(chord, here).map(showSymbol).join(' ')],
    ['Covers', notes(here.assessment.covered)],
    ['Lacks', notes(here.assessment.missing)],
    ['Clashes', notes(here.assessment.clashes.map(({ note }) => note))],
    ['Adds', notes([...here.assessment.colours, ...here.assessment.blue])],
    ['Only here', notes(onlyIn(here, there))],
    ['Outside the key', notes(here.assessment.outsideKey)],
  ];
  const left = $derived(rows(one, other));
  const right = $derived(rows(other, one));
</script>

<div class="mb-1 flex items-baseline">
  <h2 class="font-semibold">Side by side</h2>
  <button class="ml-auto text-sm underline" onclick={onrelease}>Done</button>
</div>
<table class="w-full text-[13px]" data-compare>
  <thead>
    <tr>
      <td></td>
      {#each [one, other] as { material } (material.name)}
        <th scope="col" class="heading px-1 text-left">{showMaterial(material, naming)}</th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each left as [name, value], index (name)}
      <tr class="border-t border-line align-top">
        <th scope="row" class="pr-1 text-left font-normal text-ink-soft">{name}</th>
        <td class="px-1">{value}</td>
        <td class="px-1">{right[index]?.[1]}</td>
      </tr>
    {/each}
  </tbody>
</table>
