<!-- An option's notes over the chord: tones solid, colours outlined, clashes faint and dashed, blue dotted. -->
<script lang="ts">
  import type { Chord, Option } from 'corvel-core';
  import { type OptionTone, optionTones } from './optionWords';

  interface Props {
    readonly chord: Chord;
    readonly option: Option;
  }

  let { chord, option }: Props = $props();

  const CLASSES: Readonly<Record<OptionTone['weight'], string>> = {
    tone: 'border-ink bg-ink text-paper',
    colour: 'border-ink',
    clash: 'border-dashed border-line-strong text-ink-soft',
    blue: 'border-dotted border-ink italic',
  };
  const SAYS: Readonly<Record<OptionTone['weight'], string>> = {
    tone: 'chord tone',
    colour: 'colour',
    clash: 'clashes when held',
    blue: 'blue note',
  };
</script>

<span class="flex flex-wrap gap-0.5">
  {#each optionTones(chord, option) as { text, weight }, index (index)}
    <span
      class="min-w-5 rounded-sm border px-0.5 text-center text-[11px] leading-4 {CLASSES[weight]}"
      title="{text}: {SAYS[weight]}">{text}</span
    >
  {/each}
</span>
