<!-- One of a few: a row of buttons of which one is pressed in. -->
<script lang="ts" generics="Value extends string">
  import { ToggleGroup } from 'bits-ui';

  interface Props {
    readonly label: string;
    /** Whether the label is shown, or only spoken. */
    readonly bare?: boolean;
    readonly value: Value;
    /** Values, their names, and where wanted a sentence that explains one. */
    readonly options: readonly (readonly [value: Value, name: string, says?: string])[];
    readonly onchange: (value: Value) => void;
  }

  let { label, bare = false, value, options, onchange }: Props = $props();
</script>

<div class="flex flex-wrap items-center gap-2 text-sm">
  {#if !bare}<span class="text-ink-soft">{label}</span>{/if}
  <ToggleGroup.Root
    type="single"
    rovingFocus={false}
    class="flex flex-wrap rounded border border-line-strong"
    aria-label={label}
    bind:value={
      () => value,
      (picked) => {
        // Pressing the chosen one again keeps it chosen.
        if (picked !== '') onchange(picked as Value);
      }
    }
  >
    {#each options as [option, name, says] (option)}
      <ToggleGroup.Item
        value={option}
        data-explain={says}
        class="min-h-8 px-2 whitespace-nowrap not-first:border-l not-first:border-line-strong data-[state=on]:bg-ink data-[state=on]:text-paper"
      >
        {name}
      </ToggleGroup.Item>
    {/each}
  </ToggleGroup.Root>
</div>
