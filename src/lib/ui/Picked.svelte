<!-- One of many, from a list, beside its label. -->
<script lang="ts" generics="Value extends string | number">
  interface Props {
    readonly label: string;
    readonly name: string;
    readonly value: Value;
    readonly options: readonly (readonly [value: Value, name: string])[];
    readonly disabled?: boolean;
    /** Whether it stands in a row of others, its label close by. */
    readonly inline?: boolean;
    /** Whether letters go to the page, where a list that was chosen from keeps the focus. */
    readonly lettersToPage?: boolean;
    readonly onpick: (value: Value) => void;
  }

  let {
    label,
    name,
    value,
    options,
    disabled = false,
    inline = false,
    lettersToPage = false,
    onpick,
  }: Props = $props();
</script>

<label class="flex items-center {inline ? 'gap-1.5' : 'min-h-9 justify-between gap-2'}">
  <span class={inline ? 'text-ink-soft' : ''}>{label}</span>
  <select
    class="field min-w-0 {inline ? '' : 'max-w-48'}"
    {name}
    {disabled}
    {value}
    data-keys={lettersToPage ? 'page' : undefined}
    onchange={(event) => {
      const picked = options[event.currentTarget.selectedIndex];
      if (picked) onpick(picked[0]);
    }}
  >
    {#each options as [option, shown] (option)}<option value={option}>{shown}</option>{/each}
  </select>
</label>
