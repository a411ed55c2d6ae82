<!-- Choosing what a chart is played on: an instrument, its tuning, the hand. -->
<script lang="ts">
  import { asTyped, fromTyped } from '$lib/ui/glyphs';
  import { makeNeck } from 'corvel-core';
  import { TUNINGS } from '$core/neck/instruments';
  import { type Instrument, INSTRUMENT_LIMIT, neckOf } from '$lib/settings/settings';
  import { setInstrument } from '$lib/study/edits';
  import { getStudy } from '$lib/study/study.svelte';

  const study = getStudy();
  const { settings } = study;

  /** The tuning by its name; empty for one of the player's own. */
  const tuning = $derived(
    TUNINGS.find(({ strings }) => strings.join() === study.instrument.tuning.join())?.name ?? '',
  );
  let refusal = $state('');

  /**
   * Puts this chart on an instrument like its own in another tuning: one there is already, or a new
   * one, so that the other charts keep theirs.
   */
  function tune(strings: readonly string[], name: string) {
    const own = study.instrument;
    const wanted = { ...own, tuning: [...strings] };
    const made = makeNeck(wanted);
    refusal = made.ok ? '' : made.message;
    if (!made.ok) return;
    const like = ({ tuning, frets, capo, leftHanded }: Instrument) =>
      JSON.stringify([neckOf({ ...own, tuning }).tuning, frets, capo, leftHanded]);
    const known = settings.current.instruments.find((one) => like(one) === like(wanted));
    if (!known && settings.current.instruments.length >= INSTRUMENT_LIMIT) {
      refusal = `There are ${INSTRUMENT_LIMIT} instruments already. Delete one under All instruments first.`;
      return;
    }
    const id = known?.id ?? crypto.randomUUID();
    if (!known) {
      const named = { ...wanted, id, name: name.slice(0, 60) };
      settings.change({ instruments: [...settings.current.instruments, named] });
    }
    study.edit(setInstrument(id));
  }
</script>

<label class="flex items-center gap-2">
  On
  <select
    class="field ml-auto max-w-44"
    aria-label="Instrument"
    value={study.instrument.id}
    onchange={(event) => study.edit(setInstrument(event.currentTarget.value))}
  >
    {#each study.settings.current.instruments as { id, name } (id)}<option value={id}>{name}</option
      >{/each}
  </select>
</label>
<label class="flex items-center gap-2">
  Tuned
  <select
    class="field ml-auto max-w-44"
    aria-label="Tuning"
    name="tuning"
    value={tuning}
    onchange={(event) => {
      const preset = TUNINGS.find(({ name }) => name === event.currentTarget.value);
      if (preset) tune(preset.strings, `${study.instrument.name}, ${preset.name}`);
    }}
  >
    <option value="" disabled>your own</option>
    {#each TUNINGS as { name } (name)}<option value={name}>{name}</option>{/each}
  </select>
</label>
<label class="flex items-center gap-2">
  Strings
  <input
    class="field ml-auto w-44"
    aria-label="Open strings, lowest first"
    name="strings"
    maxlength="60"
    value={study.instrument.tuning.map(asTyped).join(' ')}
    onchange={(event) => {
      const strings = event.currentTarget.value.trim().split(/[\s,]+/u);
      tune(strings.map(fromTyped), `${study.instrument.name}, ${strings.join(' ')}`);
    }}
  />
</label>
<p role="alert" class="text-now-text empty:hidden">{refusal}</p>
<p class="text-ink-soft">Other charts keep their tuning.</p>
<label class="flex items-center gap-2">
  <input
    type="checkbox"
    name="left-handed"
    checked={study.instrument.leftHanded}
    onchange={(event) => {
      const { id } = study.instrument;
      const leftHanded = event.currentTarget.checked;
      const { instruments } = settings.current;
      settings.change({
        instruments: instruments.map((one) => (one.id === id ? { ...one, leftHanded } : one)),
      });
    }}
  />
  Left-handed
  <a class="ml-auto underline" href="/settings">All instruments</a>
</label>
