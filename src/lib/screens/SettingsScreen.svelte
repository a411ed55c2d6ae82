<!-- What the player sets once: names of notes and numerals, and the instruments, each shown as it is set. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { untrack } from 'svelte';
  import { makeNeck } from 'corvel-core';
  import { TUNINGS } from '$core/neck/instruments';
  import { NECK_LIMITS } from '$core/neck/neck';
  import { LARGE, layOut } from '$lib/neck/layout';
  import NeckBoard from '$lib/neck/NeckBoard.svelte';
  import {
    type Instrument,
    INSTRUMENT_LIMIT,
    neckOf,
    type StoredSettings,
  } from '$lib/settings/settings';
  import Keys from '$lib/frame/Keys.svelte';
  import { note } from '$core/notes/notes';
  import Choice from '$lib/ui/Choice.svelte';
  import { asTyped, fromTyped, showNote, showSymbol } from '$lib/ui/glyphs';
  import { createSettings } from '$lib/settings/store.svelte';

  interface Props {
    readonly stored: StoredSettings;
  }

  let { stored }: Props = $props();

  const settings = untrack(() => createSettings(stored));
  const instruments = $derived(settings.current.instruments);

  let refusals = $state<Readonly<Record<string, string>>>({});

  function change(id: string, changed: Partial<Instrument>) {
    const edited = instruments.map((one) => (one.id === id ? { ...one, ...changed } : one));
    const instrument = edited.find((one) => one.id === id);
    const result = instrument ? makeNeck(instrument) : null;
    refusals = { ...refusals, [id]: result?.ok === false ? result.message : '' };
    if (result?.ok) settings.change({ instruments: edited });
  }

  function add() {
    const id = crypto.randomUUID();
    const [first] = instruments;
    if (first)
      settings.change({ instruments: [...instruments, { ...first, id, name: 'Another guitar' }] });
  }

  function remove(id: string) {
    settings.change({ instruments: instruments.filter((one) => one.id !== id) });
  }

  const presetOf = ({ tuning }: Instrument): string =>
    TUNINGS.find(({ strings }) => strings.join() === tuning.join())?.name ?? '';

  const NOTE_NAMES = [
    ['letters', 'C D E … B'],
    ['german', 'C D E … H'],
    ['sol-fa', 'Do Re Mi … Si'],
  ] as const;
  const NUMERALS = [
    ['roman', 'I ii V'],
    ['decimal', '1 2m 5'],
  ] as const;

  const whole = (value: number): number => (Number.isFinite(value) ? Math.round(value) : 0);
</script>

<Keys actions={{}} {settings} />
<svelte:head><title>Settings · Corvel</title></svelte:head>

<main class="mx-auto flex max-w-6xl flex-col gap-6 p-4 sm:p-8">
  <h1 class="heading text-3xl">Settings</h1>
  <div class="grid gap-3" role="group" aria-labelledby="names">
    <h2 id="names" class="heading text-xl">Names</h2>
    <div class="flex flex-wrap gap-x-8 gap-y-2">
      <Choice
        label="Notes"
        value={settings.current.noteNames}
        options={NOTE_NAMES}
        onchange={(noteNames) => settings.change({ noteNames })}
      />
      <Choice
        label="Degrees of a key"
        value={settings.current.numerals}
        options={NUMERALS}
        onchange={(numerals) => settings.change({ numerals })}
      />
    </div>
    <p class="max-w-prose text-sm text-ink-soft">
      {showSymbol('Bm7b5, Bbmaj7, ii7, V7')} are shown, spoken and printed like this. The text of a chart
      keeps the letters A to G{settings.current.noteNames === 'letters'
        ? ''
        : `: its B is ${showNote(note('B'))}, its Bb ${showNote(note('Bb'))}`}. It also reads H, Do
      Re Mi, Fis and Es.
    </p>
  </div>
  <div class="flex flex-wrap items-end gap-3">
    <h2 class="heading mr-auto text-xl">Instruments</h2>
    <button class="button-strong" disabled={instruments.length >= INSTRUMENT_LIMIT} onclick={add}>
      <Plus size={16} aria-hidden="true" />Add an instrument
    </button>
  </div>
  {#each instruments as instrument (instrument.id)}
    {@const neck = neckOf(instrument)}
    {@const layout = layOut(neck, {
      ...LARGE,
      stringGap: 20,
      above: 14,
      leftHanded: instrument.leftHanded,
    })}
    <section
      aria-label={instrument.name}
      class="border-t border-line pt-4"
      data-instrument={instrument.id}
    >
      <div class="flex flex-wrap items-end gap-x-4 gap-y-2 text-sm">
        <label class="grid gap-1">
          Name
          <input
            class="field w-44"
            value={instrument.name}
            maxlength="60"
            oninput={(event) => {
              const name = event.currentTarget.value.trim();
              if (name !== '') change(instrument.id, { name });
            }}
            onchange={(event) => (event.currentTarget.value = instrument.name)}
          />
        </label>
        <label class="grid gap-1">
          Tuning
          <select
            class="field"
            value={presetOf(instrument)}
            onchange={(event) => {
              const preset = TUNINGS.find(({ name }) => name === event.currentTarget.value);
              if (preset) change(instrument.id, { tuning: [...preset.strings] });
            }}
          >
            <option value="" disabled>your own</option>
            {#each TUNINGS as { name } (name)}<option value={name}>{name}</option>{/each}
          </select>
        </label>
        <label class="grid gap-1">
          Open strings, lowest first
          <input
            class="field w-64"
            value={instrument.tuning.map(asTyped).join(' ')}
            maxlength="60"
            aria-invalid={Boolean(refusals[instrument.id])}
            onchange={(event) =>
              change(instrument.id, {
                tuning: event.currentTarget.value
                  .trim()
                  .split(/[\s,]+/u)
                  .map(fromTyped),
              })}
          />
        </label>
        <label class="grid gap-1">
          Frets
          <input
            type="number"
            class="field w-20"
            min={NECK_LIMITS.frets.low}
            max={NECK_LIMITS.frets.high}
            value={instrument.frets}
            onchange={(event) =>
              change(instrument.id, { frets: whole(event.currentTarget.valueAsNumber) })}
          />
        </label>
        <label class="grid gap-1">
          Capo
          <input
            type="number"
            class="field w-20"
            min="0"
            max="12"
            value={instrument.capo}
            onchange={(event) =>
              change(instrument.id, { capo: whole(event.currentTarget.valueAsNumber) })}
          />
        </label>
        <label class="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            checked={instrument.leftHanded}
            onchange={(event) => change(instrument.id, { leftHanded: event.currentTarget.checked })}
          />
          Left-handed
        </label>
        {#if instruments.length > 1}
          <button
            class="button-quiet"
            aria-label="Remove {instrument.name}"
            title="Remove"
            onclick={() => remove(instrument.id)}
          >
            <Trash size={16} aria-hidden="true" />
          </button>
        {/if}
      </div>
      <p role="alert" class="min-h-6 text-sm text-now-text">{refusals[instrument.id] ?? ''}</p>
      <div class="overflow-x-auto">
        <svg
          viewBox="0 0 {layout.width} {layout.height}"
          class="block w-full min-w-2xl"
          role="img"
          aria-label="{instrument.name}: {instrument.tuning
            .map(asTyped)
            .join(' ')}, {instrument.frets} frets"
        >
          <NeckBoard {neck} {layout} zone={null} />
        </svg>
      </div>
    </section>
  {/each}
  <p class="text-sm">
    <a class="underline" href="/share">Corvel on another device</a>: a tablet or phone of this
    network.
  </p>
</main>
