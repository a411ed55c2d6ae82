/** What Plan shows: the place in the chart, the zone, and everything that follows from them. */
import { type Chart, nextChange, type PlayedChord, readChart } from '$core/chart/form';
import { cross } from '$core/crossings/crossing';
import { signatureTonic } from '$core/harmony/keys';
import { readHarmony } from '$core/harmony/reading';
import { type Material, materialFor, type MaterialKind } from '$core/lenses/material';
import { modeAt } from '$core/lenses/modes';
import { filterMarks, type Layer, type LayerKind, layersFor, withGround } from '$core/neck/layers';
import { markNeck, type Sounding } from '$core/neck/marks';
import { fitZone, slideZone, wholeNeck, type Zone } from '$core/neck/neck';
import { firstZone, zonesOf } from '$core/neck/zones';
import type { ChartEditing } from '$lib/charts/document.svelte';
import { instrumentOf, neckOf } from '$lib/settings/settings';
import type { SettingsStore } from '$lib/settings/store.svelte';
import { type Plan, readPlan, writePlan } from './plan';

export interface Place {
  readonly index: number;
  readonly zone: Zone | null;
}

/** A chord of the chart with what is played over it. */
export interface PlannedChord extends PlayedChord {
  readonly material: Material;
  readonly kind: MaterialKind;
}

export function createSession(document: ChartEditing, settings: SettingsStore, start: Place) {
  let index = $state(start.index);
  let draggedZone = $state.raw<Zone | null>(start.zone);
  let whole = $state(false);

  const result = $derived(readChart(document.text));
  let lastGood: Chart | null = null;
  const chart = $derived.by(() => {
    if (result.ok) lastGood = result.chart;
    return lastGood;
  });
  const problems = $derived(result.ok ? [] : result.problems);
  const reading = $derived(chart ? readHarmony(chart) : null);
  const plan = $derived(readPlan(document.plan));
  const instrument = $derived(instrumentOf(settings.current, plan.instrument));
  const neck = $derived(neckOf(instrument));

  const planned = $derived(
    (chart?.chords ?? []).map((played): PlannedChord => {
      const kind = plan.choices[String(played.index)] ?? plan.material;
      return { ...played, kind, material: materialFor(played.chord, kind) };
    }),
  );
  const nowIndex = $derived(Math.max(0, Math.min(index, planned.length - 1)));
  const now = $derived(planned[nowIndex] ?? null);
  const nextIndex = $derived(chart ? nextChange(chart, nowIndex) : null);
  const next = $derived(nextIndex === null ? null : (planned[nextIndex] ?? null));

  const opening = $derived.by((): Zone => {
    const key = reading?.key.key;
    const tonic = key ? signatureTonic(key) : planned[0]?.chord.root;
    return tonic === undefined ? { low: 2, high: 6 } : firstZone(neck, tonic);
  });
  const zone = $derived.by(() => {
    const wanted = draggedZone ?? plan.zone ?? opening;
    return fitZone(neck, wanted.low, wanted.high);
  });

  const sounding = (planned: PlannedChord): Sounding => ({
    chord: planned.chord,
    notes: planned.material.notes,
  });
  const mode = $derived(chart && reading ? modeAt(chart, reading, nowIndex) : null);
  /** Layers by everything they follow from: a form comes back to the same chords. */
  const knownLayers = $derived.by(() => {
    void [neck, zone, plan.layers, plan.strings];
    // Made anew when anything it depends on changes; its filling is nobody's cue to redraw.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    return new Map<string, readonly Layer[]>();
  });
  const layers = $derived.by((): readonly Layer[] => {
    if (!now || !mode || plan.layers.length === 0) return [];
    const { chord } = now;
    const id = `${chord.root} ${chord.quality.name} ${mode.root} ${mode.kind.name}`;
    const known = knownLayers.get(id);
    if (known) return known;
    const made = layersFor(plan.layers, { neck, zone, chord, mode, strings: plan.strings });
    knownLayers.set(id, made);
    return made;
  });
  const marks = $derived.by(() => {
    if (!now) return [];
    const shown = whole ? wholeNeck(neck) : zone;
    const marked = markNeck(neck, shown, sounding(now), next ? sounding(next) : null);
    return filterMarks(withGround(neck, marked, layers), {
      strings: plan.strings,
      octaveFrom: plan.oneOctave ? now.chord.root : null,
    });
  });
  const zones = $derived.by(() => {
    const key = reading?.key.key;
    const tonic = key ? signatureTonic(key) : planned[0]?.chord.root;
    return tonic === undefined ? [] : zonesOf(neck, tonic);
  });
  const crossing = $derived(now && next ? cross(now.material.notes, next.material.notes) : null);

  function changePlan(changed: Partial<Plan>, group: string | null = null) {
    document.edit({ plan: writePlan({ ...plan, ...changed }) }, group);
  }

  function setZone(wanted: Zone) {
    draggedZone = fitZone(neck, wanted.low, wanted.high);
  }

  /** Saves the zone once the hand has let go of it. */
  function keepZone() {
    if (draggedZone === null) return;
    changePlan({ zone: draggedZone }, 'zone');
    draggedZone = null;
  }

  return {
    get instrument() {
      return instrument;
    },
    get neck() {
      return neck;
    },
    /** The mode to play over the chord sounding now. */
    get mode() {
      return mode;
    },
    get layers() {
      return layers;
    },
    /** The five zones of the chart's key on this neck. */
    get zones() {
      return zones;
    },
    get chart() {
      return chart;
    },
    get problems() {
      return problems;
    },
    get reading() {
      return reading;
    },
    get plan() {
      return plan;
    },
    get planned() {
      return planned;
    },
    get now() {
      return now;
    },
    get next() {
      return next;
    },
    /** The stretch of chords too fast to outline that holds the one sounding now, if any. */
    get fast() {
      return reading?.fast.find(({ from, to }) => from <= nowIndex && nowIndex <= to);
    },
    /** The cadences that hold the chord sounding now. */
    get cadencesNow() {
      return (reading?.cadences ?? []).filter(({ from, to }) => from <= nowIndex && nowIndex <= to);
    },
    get marks() {
      return marks;
    },
    get crossing() {
      return crossing;
    },
    get zone() {
      return zone;
    },
    get whole() {
      return whole;
    },
    setZone,
    keepZone,
    slideZone(frets: number) {
      setZone(slideZone(neck, zone, frets));
      keepZone();
    },
    toggleWhole() {
      whole = !whole;
    },
    go(to: number) {
      index = to;
    },
    /** Steps through the form, round its ends. */
    step(by: number) {
      const { length } = planned;
      if (length > 0) index = (nowIndex + by + length) % length;
    },
    chooseZone(wanted: Zone) {
      setZone(wanted);
      keepZone();
    },
    toggleLayer(kind: LayerKind) {
      const { layers: on } = plan;
      changePlan({ layers: on.includes(kind) ? on.filter((one) => one !== kind) : [...on, kind] });
    },
    showStrings(strings: readonly number[] | null) {
      changePlan({ strings: strings === null ? null : [...strings] });
    },
    toggleOctave() {
      changePlan({ oneOctave: !plan.oneOctave });
    },
    setInstrument(id: string) {
      draggedZone = null;
      changePlan({ instrument: id, zone: null, strings: null });
    },
    setLabels(labels: Plan['labels']) {
      changePlan({ labels });
    },
    /** Where a chord stands on paper: its written bar and its place in it. */
    writtenAt(index: number): { readonly bar: number; readonly slot: number } | null {
      const played = planned[index];
      const here = chart?.bars[(played?.bar ?? 0) - 1];
      if (!chart || !played || !here) return null;
      const before = chart.source.sections.slice(0, here.section);
      const first = before.reduce((sum, { bars }) => sum + bars.length, 0);
      const inBar = chart.chords.filter(({ bar }) => bar === played.bar);
      return { bar: first + here.sourceBar, slot: inBar.indexOf(chart.chords[index] ?? played) };
    },
    toggleNames() {
      changePlan({ names: plan.names === 'symbols' ? 'numerals' : 'symbols' });
    },
    /** Chooses for the chord sounding now, or for every chord of the chart. */
    choose(kind: MaterialKind, scope: 'chord' | 'chart') {
      if (scope === 'chart') changePlan({ material: kind, choices: {} });
      else changePlan({ choices: { ...plan.choices, [String(nowIndex)]: kind } });
    },
  };
}

export type PlanSession = ReturnType<typeof createSession>;
