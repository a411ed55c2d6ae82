<!--
  Every borrowed pentatonic over a chord at a glance: kinds down, roots across. A square says how
  many guide tones it holds; a frame that players use it; a stroke through, that something clashes.
-->
<script lang="ts">
  import { group } from 'd3-array';
  import type { Chord } from '$core/chords/chords';
  import { degreeOver } from '$core/chords/over';
  import { type Option, reasonFor } from '$core/lenses/options';
  import { pitchClass } from '$core/notes/notes';
  import { showDegree, showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly chord: Chord;
    readonly options: readonly Option[];
    readonly chosen: string;
    readonly onlook: (option: Option | null) => void;
    readonly onchoose: (option: Option) => void;
  }

  let { chord, options, chosen, onlook, onchoose }: Props = $props();

  const KIND_NAMES: Readonly<Record<string, string>> = {
    'minor pentatonic': 'minor',
    'minor sixth pentatonic': 'minor sixth',
    'dominant pentatonic': 'dominant',
    'major flat-sixth pentatonic': 'major ♭6',
    'major flat-third pentatonic': 'major ♭3',
  };
  const above = (option: Option) =>
    (pitchClass(option.material.root) - pitchClass(chord.root) + 12) % 12;
  const byKind = $derived(group(options, (option) => option.material.kind));
  const rows = $derived(
    Object.keys(KIND_NAMES).flatMap((kind) => {
      const found = byKind.get(kind);
      return found ? [[kind, found] as const] : [];
    }),
  );
  const roots = $derived(
    Array.from({ length: 12 }, (_, size) => {
      const option = options.find((one) => above(one) === size);
      return option ? showDegree(degreeOver(chord, option.material.root)) : '';
    }),
  );
  /** How full the square is drawn: none, some or all of the guide tones. */
  const fill = ({ assessment: { guideTones, guideToneCount } }: Option) =>
    guideTones.length === 0 ? 0 : guideTones.length === guideToneCount ? 1 : 0.5;
</script>

<table class="w-full border-separate border-spacing-0.5 text-xs" data-matrix>
  <thead>
    <tr>
      <th scope="col" class="text-left font-normal text-ink-soft">root at</th>
      {#each roots as root, size (size)}
        <th scope="col" class="font-normal text-ink-soft">{root}</th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each rows as [kind, found] (kind)}
      <tr>
        <th scope="row" class="pr-1 text-left font-normal whitespace-nowrap">
          {KIND_NAMES[kind] ?? kind}
        </th>
        {#each Array.from({ length: 12 }, (_, size) => size) as size (size)}
          {@const option = found.find((one) => above(one) === size)}
          <td class="p-0">
            {#if option}
              {@const clash = option.assessment.clashes.length > 0}
              <button
                class="relative flex h-5 w-full min-w-4 items-end overflow-hidden rounded-[2px] border {option
                  .material.name === chosen
                  ? 'outline-2 outline-now'
                  : ''} {option.common ? 'border-2 border-ink' : 'border-line-strong'}"
                aria-label="{showSymbol(option.material.name)}: {showSymbol(
                  reasonFor(chord, option),
                )}"
                title="{showSymbol(option.material.name)}
{showSymbol(reasonFor(chord, option))}"
                aria-pressed={option.material.name === chosen}
                onpointerenter={() => onlook(option)}
                onpointerleave={() => onlook(null)}
                onfocus={() => onlook(option)}
                onblur={() => onlook(null)}
                onclick={() => onchoose(option)}
              >
                <span class="w-full bg-ink" style:height="{fill(option) * 100}%"></span>
                {#if clash}
                  <svg
                    class="absolute inset-0 h-full w-full"
                    viewBox="0 0 10 10"
                    preserveAspectRatio="none"
                  >
                    <line
                      class="stroke-line-strong"
                      vector-effect="non-scaling-stroke"
                      stroke-width="1.5"
                      x1="0"
                      y1="10"
                      x2="10"
                      y2="0"
                    />
                  </svg>
                {/if}
              </button>
            {/if}
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
<p class="mt-1 text-xs text-ink-soft">
  Full: both notes that name the chord. Half: one. Framed: in common use. Struck: something clashes.
</p>
