<!--
  Every borrowed pentatonic over a chord at a glance: kinds down, roots across. Each square names
  the guide tones it holds, is framed where it is in common use, and faint where something clashes.
  One stop of Tab: arrows walk from square to square.
-->
<script lang="ts">
  import { GUIDE_TONE_SAYS } from '$lib/frame/words';
  import type { Chord, Option } from 'corvel-core';
  import { degreeOver } from '$core/chords/over';
  import { reasonFor, withFlatFifths } from '$core/lenses/options';
  import { borrowedOver } from '$core/lenses/pentatonics';
  import { halfSteps, pitchClass } from '$core/notes/notes';
  import { group, range } from '$core/lists';
  import { getStudy } from '$lib/study/study.svelte';
  import { showDegree, showOver, showSymbol } from '$lib/ui/glyphs';

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
    'minor blues': 'minor',
    'minor sixth blues': 'minor sixth',
  };
  /** Whether the flat fifth stands in each: pentatonics become blues scales. */
  let flatFifth = $state(false);
  const study = getStudy();
  const context = $derived(study.contexts[study.nowIndex]);
  const listed = $derived(flatFifth && context ? withFlatFifths(context, options) : options);
  const above = (option: Option) =>
    (pitchClass(option.material.root) - pitchClass(chord.root) + 12) % 12;
  const byKind = $derived(group(listed, (option) => option.material.kind));
  const rows = $derived(
    Object.keys(KIND_NAMES).flatMap((kind) => {
      const found = byKind.get(kind);
      return found ? [[kind, found] as const] : [];
    }),
  );
  const SIZES = range(0, 12);
  /** As players count them: a flat third above, whatever its notes are over the chord. */
  const roots = $derived.by(() => {
    const relations = borrowedOver(chord).map(({ relation }) => relation);
    return SIZES.map((size) => {
      const relation = relations.find((one) => halfSteps(one) === size);
      return relation === undefined ? '' : showDegree(relation);
    });
  });
  /** The guide tones a square holds, as degrees: what it says of the chord. */
  const says = ({ assessment: { guideTones } }: Option) =>
    guideTones.map((note) => showOver(chord, degreeOver(chord, note))).join(' ') || '–';
  const all = ({ assessment: { guideTones, guideToneCount } }: Option) =>
    guideTones.length === guideToneCount;

  const optionAt = (row: number, size: number) =>
    rows[row]?.[1].find((option) => above(option) === size);
  const holds = (option: Option | undefined) => option?.material.name === chosen;

  let roving = $state.raw<readonly [row: number, size: number] | null>(null);
  let table = $state<HTMLTableElement>();
  /** The square Tab comes to: where one was, else the one chosen, else the first. */
  const stop = $derived.by((): readonly [row: number, size: number] => {
    if (roving && optionAt(...roving)) return roving;
    const here = rows.flatMap((_, row) => SIZES.map((size) => [row, size] as const));
    return (
      here.find(([row, size]) => holds(optionAt(row, size))) ??
      here.find(([row, size]) => optionAt(row, size)) ?? [0, 0]
    );
  });

  const WALKS: Readonly<Record<string, readonly [down: number, across: number]>> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };

  function onkeydown(event: KeyboardEvent) {
    const walk = WALKS[event.key];
    if (!walk || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    let [row, size] = stop;
    // Over squares that are not there.
    do {
      row += walk[0];
      size += walk[1];
      if (row < 0 || row >= rows.length || size < 0 || size >= SIZES.length) return;
    } while (!optionAt(row, size));
    roving = [row, size];
    table?.querySelector<HTMLElement>(`[data-square="${row}-${size}"]`)?.focus();
  }
</script>

<label class="flex items-center gap-1.5 text-xs">
  <input type="checkbox" name="flat-fifth" bind:checked={flatFifth} />
  With the flat fifth, as blues scales
</label>
<div role="presentation" {onkeydown}>
  <table
    bind:this={table}
    class="w-full table-fixed border-separate border-spacing-0.5 text-xs"
    aria-label={flatFifth ? 'Borrowed blues scales' : 'Borrowed pentatonics'}
    data-matrix
  >
    <thead>
      <tr>
        <th scope="col" class="w-20 text-left font-normal text-ink-soft">root on</th>
        {#each roots as root, size (size)}
          <th scope="col" class="font-normal text-ink-soft">{root}</th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as [kind], row (kind)}
        <tr>
          <th scope="row" class="pr-1 text-left font-normal whitespace-nowrap">
            {KIND_NAMES[kind] ?? kind}
          </th>
          {#each SIZES as size (size)}
            {@const option = optionAt(row, size)}
            <td class="p-0">
              {#if option}
                {@const clash = option.assessment.clashes.length > 0}
                {@const words = `${showSymbol(option.material.name)}: ${showSymbol(reasonFor(chord, option))} Guide tones: ${says(option)}`}
                <button
                  class="flex h-6 w-full min-w-6 items-center justify-center overflow-hidden rounded-[2px] border text-[11px] tracking-tighter whitespace-nowrap {holds(
                    option,
                  )
                    ? 'outline-2 outline-now'
                    : ''} {option.common ? 'border-2 border-ink' : 'border-line-strong'} {all(
                    option,
                  )
                    ? 'bg-ink font-semibold text-paper'
                    : ''} {clash ? 'border-dashed line-through opacity-75' : ''}"
                  data-square="{row}-{size}"
                  tabindex={row === stop[0] && size === stop[1] ? 0 : -1}
                  aria-label={words}
                  aria-pressed={holds(option)}
                  onpointerenter={() => onlook(option)}
                  onpointerleave={() => onlook(null)}
                  onfocus={() => {
                    roving = [row, size];
                    onlook(option);
                  }}
                  onblur={() => onlook(null)}
                  onclick={() => onchoose(option)}
                >
                  {says(option)}
                </button>
              {/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<p class="mt-1 text-xs text-ink-soft">
  Each cell shows the
  <button class="underline decoration-dotted" data-explain={GUIDE_TONE_SAYS}>guide tones</button>
  of {showSymbol(chord.symbol)} it contains. Framed: in common use. Crossed out: a note clashes.
</p>
