<!-- Plans in one style each, with what they propose here. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { takeStyle } from '$lib/study/edits';
  import type { Choice } from '$core/lenses/styles';
  import { showSymbol } from '$lib/ui/glyphs';
  import { scopeName, SCOPES, type Scope } from '$lib/study/choices';

  const study = getStudy();

  let scope = $state<Scope>('chart');

  /** The styles with what they propose: worked out when the leaf is opened. */
  const proposals = $derived.by(async () => {
    const { chart, reading } = study;
    if (!chart || !reading) return [];
    const [{ propose, STYLES }, { STYLE_NAMES }] = await Promise.all([
      import('$core/lenses/styles'),
      import('$lib/study/styles'),
    ]);
    return STYLES.map((style) => {
      const [name, says] = STYLE_NAMES[style];
      return { style, name, says, proposal: propose(chart, reading, style) };
    });
  });

  /** What a proposal plays over now and next, to know it by. */
  const taste = (proposal: readonly Choice[]): string =>
    [study.now, study.next]
      .flatMap((one) => {
        const found = one ? proposal[one.index] : undefined;
        return one && found
          ? [`${showSymbol(one.chord.symbol)}: ${showSymbol(found.material.name)}`]
          : [];
      })
      .join(' · ');
</script>

<label class="mb-2 flex items-center gap-2 text-sm">
  Use a style for
  <select class="field" bind:value={scope}>
    {#each SCOPES as one (one)}<option value={one}
        >{scopeName(one, showSymbol(study.now?.chord.symbol ?? ''))}</option
      >{/each}
  </select>
</label>
<ul class="text-sm md:grid md:grid-cols-2 md:gap-x-6 xl:grid-cols-3">
  {#await proposals then found}
    {#each found as { style, name, says, proposal } (style)}
      <li class="border-t border-line">
        <button
          class="w-full px-1 py-1.5 text-left hover:bg-line/50"
          data-style={style}
          onclick={() => {
            const { chart } = study;
            if (chart) study.edit(takeStyle(chart, study.nowIndex, proposal, scope));
          }}
        >
          <span class="font-semibold">{name}.</span>
          {says}
          <span class="block text-xs text-ink-soft">{taste(proposal)}</span>
        </button>
      </li>
    {/each}
  {/await}
</ul>
