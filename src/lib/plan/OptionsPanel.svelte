<!-- What could be played over the chord sounding now, lens by lens; looked at before it is chosen. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { togglePreferred } from '$lib/study/edits';
  import Star from '@lucide/svelte/icons/star';
  import { LENS_TABLE, LENSES, type Lens } from '$core/lenses/table';
  import type { Option } from 'corvel-core';
  import { reasonFor } from '$core/lenses/options';
  import type { ModeNaming } from '$lib/settings/settings';
  import { showSymbol } from '$lib/ui/glyphs';
  import { type Scope } from '$lib/study/choices';
  import { showMaterial } from '$lib/frame/material';
  import OptionTones from './OptionTones.svelte';
  import type PentatonicMatrix from './PentatonicMatrix.svelte';

  interface Props {
    readonly naming: ModeNaming;
    /** The lens shown; all lenses' best when null. */
    lens: Lens | null;
    readonly scope: Scope;
    /** An option held for comparing. */
    readonly held: Option | null;
    readonly onhold: (option: Option | null) => void;
  }

  let { naming, lens = $bindable(), scope, held, onhold }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  /** Lenses with a figure of their own; it comes when the lens is looked through. */
  const FIGURES: Readonly<Record<string, () => Promise<{ default: typeof PentatonicMatrix }>>> = {
    'borrowed-pentatonic': () => import('./PentatonicMatrix.svelte'),
    'stacked-arpeggio': () => import('./ThirdsStack.svelte'),
  };

  const chord = $derived(model.now?.chord ?? null);
  /** The best of each lens, in the order of their ranks. */
  const best = $derived(
    LENSES.flatMap((one) => model.options.find((option) => option.lens === one) ?? []).sort(
      (a, b) => a.rank - b.rank,
    ),
  );
  const sameSound = (option: Option) => (other: Option) =>
    other.material.name === option.material.name;
  /** The lenses of which a sound is the best. */
  const givenBy = (option: Option): string =>
    best
      .filter(sameSound(option))
      .map((one) => LENS_TABLE[one.lens].name)
      .join(', ');
  const FEW_BORROWED = 6;
  /** Whether the schools are listed, and not only the best of all. */
  let unfolded = $state(untrack(() => lens !== null));
  const SCHOOL =
    'min-h-8 rounded-sm px-1.5 text-ink-soft hover:text-ink aria-pressed:bg-ink aria-pressed:text-paper pointer-coarse:min-h-11';

  const shown = $derived.by((): readonly Option[] => {
    const { options } = model;
    // One sound is one row.
    if (lens === null)
      return best.filter((option, place) => best.findIndex(sameSound(option)) === place);
    const own = options.filter((option) => option.lens === lens);
    return lens === 'borrowed-pentatonic'
      ? own
          .filter(({ common }) => common)
          .concat(own.filter(({ common }) => !common))
          .slice(0, FEW_BORROWED)
      : own;
  });
  const all = $derived(lens === null ? [] : model.options.filter((option) => option.lens === lens));
  const chosen = $derived(model.now?.material.name ?? '');
  const count = (one: Lens) => model.options.some((option) => option.lens === one);

  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    const rows = [
      ...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[data-option]'),
    ];
    const at = rows.indexOf(document.activeElement as HTMLElement);
    event.preventDefault();
    event.stopPropagation();
    rows[Math.max(0, Math.min(rows.length - 1, at + by))]?.focus();
  }
</script>

{#if chord}
  <div
    class="flex shrink-0 flex-wrap items-center text-[13px] whitespace-nowrap"
    role="group"
    aria-label="Lenses"
  >
    <button class={SCHOOL} aria-pressed={lens === null} onclick={() => (lens = null)}
      >The best</button
    >
    {#if unfolded}
      {#each LENSES as one (one)}
        <button
          class="{SCHOOL} {model.now?.lens === one
            ? 'underline decoration-now decoration-2 underline-offset-4'
            : ''} disabled:opacity-40"
          aria-pressed={lens === one}
          disabled={!count(one)}
          data-lens={one}
          data-explain="{LENS_TABLE[one].name}: {LENS_TABLE[one].says}"
          onclick={() => (lens = one)}>{LENS_TABLE[one].name}</button
        >
      {/each}
    {/if}
    <button
      class={SCHOOL}
      aria-expanded={unfolded}
      data-more-lenses
      onclick={() => {
        unfolded = !unfolded;
        if (!unfolded) lens = null;
      }}>{unfolded ? 'Fewer' : 'More…'}</button
    >
    {#if lens}
      {@const preferred = study.plan.preferred.includes(lens)}
      <button
        class="ml-auto flex items-center gap-1 px-1 text-ink-soft hover:text-ink"
        aria-pressed={preferred}
        title="List this school before others"
        onclick={() => lens && study.edit(togglePreferred(lens))}
      >
        <Star size={13} fill={preferred ? 'currentColor' : 'none'} aria-hidden="true" />
        {preferred ? 'Preferred' : 'Prefer'}
      </button>
    {/if}
  </div>
  {#if FIGURES[lens ?? ''] && all.length > 0}
    {#await FIGURES[lens ?? '']?.() then module}
      {@const Figure = module?.default}
      {#if Figure}
        <Figure
          {chord}
          options={all}
          {chosen}
          onlook={model.look}
          onchoose={(option) => model.choose(option, scope)}
        />
      {/if}
    {/await}
  {/if}
  <div role="group" aria-label="Options, best first">
    <div role="presentation" class="flex flex-col" {onkeydown}>
      <!-- By place, so that a step to the next chord rewrites the rows and makes none anew. -->
      {#each shown as option, row (row)}
        {@const here =
          option.material.name === chosen && (lens === null || option.lens === model.now?.lens)}
        <div class="flex items-start gap-1 border-t border-line first:border-t-0">
          <button
            class="flex min-w-0 flex-1 flex-col border-l-4 py-0.5 pl-1.5 text-left hover:bg-line/50 focus-visible:bg-line/50 {here
              ? 'border-now'
              : 'border-transparent'}"
            data-option={option.material.name}
            data-option-lens={option.lens}
            aria-pressed={here}
            onpointerenter={() => model.look(option)}
            onpointerleave={() => model.look(null)}
            onfocus={() => model.look(option)}
            onblur={() => model.look(null)}
            onclick={() => model.choose(option, scope)}
          >
            <span class="flex w-full flex-wrap items-center gap-x-2">
              <span class="w-5 text-right text-xs text-ink-soft" title="rank">{row + 1}</span>
              <span class="heading text-[15px]/5">{showMaterial(option.material, naming)}</span>
              <OptionTones {chord} {option} />
              {#if lens === null}<span class="text-xs text-ink-soft">{givenBy(option)}</span>{/if}
            </span>
            <span class="pl-7 text-[12.5px]/[1.05rem] text-ink-soft">
              {showSymbol(reasonFor(chord, option))}
              {#if option.then}
                Then {showMaterial(option.then.to, naming)}.
              {/if}
            </span>
          </button>
          <button
            class="button-quiet min-h-0 py-1 text-xs"
            aria-pressed={held?.material === option.material}
            title="Compare it with another scale"
            onclick={() => onhold(held?.material === option.material ? null : option)}
            >{held?.material === option.material ? 'Comparing' : 'Compare'}</button
          >
        </div>
      {:else}
        <p class="py-2 text-sm text-ink-soft">
          {LENS_TABLE[lens ?? 'mode'].name}: nothing for {showSymbol(chord.symbol)}.
        </p>
      {/each}
    </div>
  </div>
{/if}
