<!-- What to land on: preferences, the way through, its alternatives, and each step in words. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { changeTargets, unpin } from '$lib/study/edits';
  import type { Chart } from 'corvel-core';
  import { CONTOURS, type Preference } from '$core/targets/kinds';
  import type { Route } from '$core/targets/route';
  import { PART_WORDS, ROUTE_PARTS, type RoutePart } from '$core/targets/weights';
  import { showSymbol } from '$lib/ui/glyphs';
  import RouteThumbnail from './RouteThumbnail.svelte';

  interface Props {
    readonly chart: Chart;
  }

  let { chart }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  const PREFERENCES: readonly (readonly [string, readonly Preference[]])[] = [
    ['thirds, then sevenths', ['3', '7']],
    ['sevenths, then thirds', ['7', '3']],
    ['the nearest guide tone', ['guideTones']],
    ['roots', ['1']],
    ['fifths', ['5']],
    ['ninths, then thirds', ['9', '3']],
  ];
  const CONTOUR_NAMES = {
    level: 'stays flat',
    rising: 'rising',
    falling: 'falling',
    arch: 'up, then down',
  } as const;

  const settings = $derived(study.plan.targets);
  const preferred = $derived(settings.prefer.join(' '));
  const now = $derived(model.targets.stopAt(model.now?.index));
  const next = $derived(model.targets.stopAt(model.next?.index));
  const pins = $derived(Object.keys(study.plan.pins).length);
  const costs = $derived(
    model.targets.chosen
      ? ROUTE_PARTS.filter((part) => costOf(part) > 0)
          .toSorted((a, b) => costOf(b) - costOf(a))
          .map((part) => PART_WORDS[part])
      : [],
  );

  const costOf = (part: RoutePart): number => model.targets.chosen?.parts[part] ?? 0;

  const ORDINALS = ['Best', 'Second-best', 'Third-best', 'Fourth-best'] as const;

  /** Where a route begins, and how it stands among the others, in words. */
  function wayIn({ stops, cost }: Route, index: number): string {
    const best = model.targets.routes[0]?.cost ?? cost;
    const standing =
      index === 0
        ? 'Best route'
        : cost === best
          ? 'Equally good route'
          : `${ORDINALS[index] ?? 'Another'} route`;
    return `${standing}. ${showSymbol(stops[0]?.sentence ?? '')}`;
  }
</script>

<div
  class="grid gap-x-6 gap-y-2 text-sm lg:grid-cols-[56fr_44fr]"
  data-targets={model.targets.settled ? 'settled' : 'solving'}
>
  <div class="flex min-w-0 flex-col gap-1.5">
    <div class="flex flex-wrap gap-1.5">
      <label>
        <span class="sr-only">Land on</span>
        <select
          class="field min-h-8 px-1"
          value={preferred}
          onchange={(event) => {
            const picked = PREFERENCES.find(
              ([, prefer]) => prefer.join(' ') === event.currentTarget.value,
            );
            if (picked) study.edit(changeTargets({ prefer: [...picked[1]], chosen: 0 }));
          }}
        >
          {#each PREFERENCES as [name, prefer] (name)}
            <option value={prefer.join(' ')}>{name}</option>
          {/each}
        </select>
      </label>
      <label>
        <span class="sr-only">Contour</span>
        <select
          class="field min-h-8 px-1"
          value={settings.contour ?? ''}
          onchange={(event) => {
            const picked = CONTOURS.find((contour) => contour === event.currentTarget.value);
            study.edit(changeTargets({ contour: picked ?? null, chosen: 0 }));
          }}
        >
          <option value="">any contour</option>
          {#each CONTOURS as contour (contour)}
            <option value={contour}>{CONTOUR_NAMES[contour]}</option>
          {/each}
        </select>
      </label>
      <label class="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={settings.free}
          onchange={(event) =>
            study.edit(changeTargets({ free: event.currentTarget.checked, chosen: 0 }))}
        />
        Allow notes outside the zone
      </label>
    </div>
    {#if model.targets.progress !== null}
      <p class="flex items-center gap-2">
        <progress class="flex-1" max="1" value={model.targets.progress}>solving</progress>
        <button class="underline" onclick={model.targets.cancel}>Stop</button>
      </p>
    {/if}
    {#if costs.length > 0}
      <p class="text-xs text-ink-soft">Trade-offs: {costs.join(', ')}.</p>
    {/if}
    {#if pins > 0}
      <p class="text-xs">
        {pins === 1 ? 'One target is' : `${pins} targets are`} pinned.
        <button class="underline" onclick={() => study.edit(unpin)}>Unpin</button>
      </p>
    {/if}
  </div>
  <!-- The ways from a note that is picked open at left: the route stays in sight beside them. -->
  <div class="flex min-w-0 flex-col gap-1.5">
    {#if now}<p data-step="now">
        <span class="font-semibold text-now-text">Now</span>
        {showSymbol(now.sentence)}
      </p>{/if}
    {#if next}<p data-step="next">
        <span class="font-semibold text-next-text">Next</span>
        {showSymbol(next.sentence)}
      </p>{/if}
    <ul class="grid grid-cols-2 gap-1.5" aria-label="Routes through the form, best first">
      {#each model.targets.routes as route, index (index)}
        <li>
          <button
            class="w-full rounded border px-1.5 py-0.5 text-left {route === model.targets.chosen
              ? 'border-ink text-ink'
              : 'border-line text-ink-soft'}"
            aria-pressed={route === model.targets.chosen}
            aria-label="Route {index + 1}"
            title={wayIn(route, index)}
            onclick={() => model.targets.choose(index)}
          >
            <RouteThumbnail {route} {chart} />
          </button>
        </li>
      {/each}
    </ul>
    <TheoryLink part="targets-and-routes" of="targets" />
  </div>
</div>
