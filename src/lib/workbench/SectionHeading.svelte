<!-- A section's name, how often it is played, and its key, each edited where it stands. -->
<script lang="ts">
  import type { SectionSpan } from '$core/chart/sheetBars';
  import { parseKey } from '$core/keys/keys';
  import type { Workbench } from './workbench.svelte';

  interface Props {
    readonly span: SectionSpan;
    readonly workbench: Workbench;
  }

  let { span, workbench }: Props = $props();

  const section = $derived(span.section);
  let keyRefused = $state(false);

  function change(changed: Partial<NonNullable<typeof section>>) {
    if (section) workbench.changeSection(span.from, { ...section, ...changed });
  }

  function rename(event: Event & { currentTarget: HTMLInputElement }) {
    const name = event.currentTarget.value.replace(/[[\]|]/gu, '').trim();
    // A bare number would read as an ending.
    if (name === '' || /^[\d\s,-]+$/u.test(name)) event.currentTarget.value = section?.name ?? '';
    else change({ name });
  }

  function setKey(event: Event & { currentTarget: HTMLInputElement }) {
    const key = event.currentTarget.value.trim();
    keyRefused = key !== '' && parseKey(key) === null;
    if (!keyRefused) change({ key: key === '' ? null : key });
  }

  const FIELD =
    'rounded-sm border border-transparent bg-transparent px-1 hover:border-line focus:border-line-strong';
</script>

{#if section}
  <div class="flex flex-wrap items-center gap-x-2 text-sm">
    <input
      class="{FIELD} field-sizing-content min-w-10 font-semibold"
      aria-label="Section’s name"
      value={section.name}
      maxlength="40"
      onchange={rename}
    />
    <label class="text-ink-soft">
      played
      <input
        type="number"
        min="1"
        max="64"
        class="{FIELD} w-9 text-ink [appearance:textfield]"
        value={section.repeats}
        onchange={(event) => {
          const repeats = Math.max(
            1,
            Math.min(64, Math.round(event.currentTarget.valueAsNumber || 1)),
          );
          event.currentTarget.value = String(repeats);
          change({ repeats });
        }}
      />{section.repeats === 1 ? 'time' : 'times'}
    </label>
    <label class="text-ink-soft">
      key
      <input
        class="{FIELD} w-28 text-ink"
        value={section.key ?? ''}
        placeholder="as the chart"
        maxlength="20"
        aria-invalid={keyRefused}
        onchange={setKey}
      />
    </label>
    {#if keyRefused}<span role="alert" class="text-now-text"
        >Write a key like Eb, F#m or D dorian.</span
      >{/if}
  </div>
{/if}
