<!-- How loud each part is: levels, muted, alone; one master over all. -->
<script lang="ts">
  import { SOUND_PARTS, type SoundPart } from '$lib/audio/parts';
  import type { Mix } from '$lib/audio/mix';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import { getStudy } from '$lib/study/study.svelte';

  const { settings } = getStudy();
  const transport = pageTransport();
  const mix = $derived(transport.mix);

  const NAMES: Readonly<Record<SoundPart, string>> = {
    bass: 'Bass',
    comp: 'Comping',
    drums: 'Drums',
    click: 'Click',
    line: 'Line',
  };

  /** Heard at once; kept when the hand lets go. */
  const hear = (changed: Partial<Mix>) => transport.setMix({ ...mix, ...changed });
  function keep() {
    const { master, levels, muted, solo, room } = transport.mix;
    settings.change({ mix: { master, levels: { ...levels }, muted: [...muted], solo, room } });
  }
  function toggleMuted(part: SoundPart) {
    const { muted } = mix;
    hear({ muted: muted.includes(part) ? muted.filter((one) => one !== part) : [...muted, part] });
    keep();
  }
</script>

<label class="mb-1 flex min-h-8 items-center gap-1.5 text-sm">
  <input
    type="checkbox"
    name="room"
    checked={mix.room}
    onchange={(event) => {
      hear({ room: event.currentTarget.checked });
      keep();
    }}
  />
  In a room
</label>
<div class="grid grid-cols-[auto_1fr_auto_auto] items-center gap-x-3 gap-y-1 text-sm">
  <label class="contents">
    <span class="font-semibold">All</span>
    <input
      class="col-span-3"
      type="range"
      name="master"
      min="0"
      max="1"
      step="0.01"
      value={mix.master}
      oninput={(event) => hear({ master: event.currentTarget.valueAsNumber })}
      onchange={keep}
    />
  </label>
  {#each SOUND_PARTS as part (part)}
    <label class="contents">
      <span>{NAMES[part]}</span>
      <input
        type="range"
        name="level-{part}"
        min="0"
        max="1"
        step="0.01"
        value={mix.levels[part]}
        oninput={(event) =>
          hear({ levels: { ...mix.levels, [part]: event.currentTarget.valueAsNumber } })}
        onchange={keep}
      />
    </label>
    <button
      class="button min-h-8 px-2 aria-pressed:bg-ink aria-pressed:text-paper"
      aria-pressed={mix.muted.includes(part)}
      aria-label="Mute {NAMES[part].toLowerCase()}"
      onclick={() => toggleMuted(part)}>Mute</button
    >
    <button
      class="button min-h-8 px-2 aria-pressed:bg-ink aria-pressed:text-paper"
      aria-pressed={mix.solo === part}
      aria-label="Solo {NAMES[part].toLowerCase()}"
      onclick={() => {
        hear({ solo: mix.solo === part ? null : part });
        keep();
      }}>Solo</button
    >
  {/each}
</div>
