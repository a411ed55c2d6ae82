<!-- One of many, from a list, beside its label. -->
<script lang="ts" generics="Value extends string | number">
  interface Props {
    readonly label: string;
    readonly name: string;
    readonly value: Value;
    readonly options: readonly (readonly [value: Value, name: string])[];
    readonly disabled?: boolean;
    readonly onpick: (value: Value) => void;
  }

  let { label, name, value, options, disabled = false, onpick }: Props = $props();
</script>

<label class="flex min-h-9 items-center justify-between gap-2">
  {label}
  <select
    class="field max-w-48 min-w-0"
    {name}
    {disabled}
    {value}
    onchange={(event) => {
      const picked = options[event.currentTarget.selectedIndex];
      if (picked) onpick(picked[0]);
    }}
  >
    {#each options as [option, shown] (option)}<option value={option}>{shown}</option>{/each}
  </select>
</label>
