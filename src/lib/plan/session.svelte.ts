/** What Plan shows: the place in the chart, the zone, and everything that follows from them. */
import { type Chart, nextChange, readChart } from '$core/chart/form';
import { chordNotes } from '$core/chords/chords';
import { cross } from '$core/crossings/crossing';
import { type LaneKind, lanesOf } from '$core/crossings/lanes';
import { remarksOn } from '$core/crossings/remarks';
import { signatureTonic } from '$core/harmony/keys';
import { readHarmony } from '$core/harmony/reading';
import type { Intent, Lens } from '$core/lenses/lens';
import { lensContexts, type Option, optionsFor } from '$core/lenses/options';
import type { Choice } from '$core/lenses/styles';
import { modeAt } from '$core/lenses/modes';
import { filterMarks, type Layer, type LayerKind, layersFor, withGround } from '$core/neck/layers';
import { markNeck, type Sounding } from '$core/neck/marks';
import { fitZone, type Place as NeckPlace, slideZone, wholeNeck, type Zone } from '$core/neck/neck';
import { firstZone, zonesOf } from '$core/neck/zones';
import type { ChartEditing } from '$lib/charts/document.svelte';
import { instrumentOf, neckOf } from '$lib/settings/settings';
import type { SettingsStore } from '$lib/settings/store.svelte';
import { alignPlan } from './align';
import {
  choiceOf,
  choose,
  type PlannedChord,
  planChords,
  type Scope,
  scopeOf,
  takeProposal,
} from './choices';
import {
  type LaneView,
  type Plan,
  readPlan,
  type SetAside,
  type Sheet,
  type TargetSettings,
  writePlan,
} from './plan';

export type { PlannedChord } from './choices';

export interface Place {
  readonly index: number;
  readonly zone: Zone | null;
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
  const kept = $derived(readPlan(document.plan));
  const plan = $derived(chart ? alignPlan(kept, chart) : kept);
  const instrument = $derived(instrumentOf(settings.current, plan.instrument));
  const neck = $derived(neckOf(instrument));

  const contexts = $derived(chart && reading ? lensContexts(chart, reading) : []);
  const planned = $derived(chart ? planChords(chart, contexts, plan) : []);
  const nowIndex = $derived(Math.max(0, Math.min(index, planned.length - 1)));
  const now = $derived(planned[nowIndex] ?? null);
  const nextIndex = $derived(chart ? nextChange(chart, nowIndex) : null);
  const next = $derived(nextIndex === null ? null : (planned[nextIndex] ?? null));

  /** An option looked at before it is chosen. */
  let preview = $state.raw<Option | null>(null);
  const shown = $derived(preview ? preview.material : (now?.material ?? null));
  const options = $derived.by((): readonly Option[] => {
    const context = contexts[nowIndex];
    if (!context || planned.length === 0) return [];
    const before = planned[(nowIndex + planned.length - 1) % planned.length];
    const neighbours = [before, next].flatMap((one) => (one ? [one.material] : []));
    return optionsFor(context, { neighbours, preferred: plan.preferred });
  });
  /** The option that is chosen now, with what it covers and costs. */
  const current = $derived(
    now
      ? (options.find(
          ({ lens, material }) => lens === now.lens && material.name === now.material.name,
        ) ??
          options.find(({ material }) => material.name === now.material.name) ??
          null)
      : null,
  );
  const chords = $derived((chart?.chords ?? []).map(({ chord }) => chord));
  const lanes = $derived(lanesOf(chords));
  const remarks = $derived(
    remarksOn(chords, reading?.blues ? (reading.key.key?.tonic ?? null) : null),
  );

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
    const region = whole ? wholeNeck(neck) : zone;
    const over: Sounding = preview
      ? { chord: now.chord, notes: preview.material.notes }
      : sounding(now);
    const marked = markNeck(neck, region, over, next ? sounding(next) : null);
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
  const crossing = $derived.by(() => {
    if (!now || !next) return null;
    const ofChords = plan.crossing === 'chords' && preview === null;
    const before = ofChords ? chordNotes(now.chord) : (shown?.notes ?? now.material.notes);
    const after = ofChords ? chordNotes(next.chord) : next.material.notes;
    return { before, after, ...cross(before, after) };
  });

  function changePlan(changed: Partial<Plan>, group: string | null = null) {
    document.edit({ plan: writePlan({ ...plan, ...changed }) }, group);
  }

  /** Keeps a plan whose choices are already on their chords. */
  const keep = (changed: Plan) => {
    document.edit({ plan: writePlan(changed) });
  };

  /** Chooses an option for the chord sounding now, and as far as the scope reaches. */
  function chooseOption(option: Option, scope: Scope) {
    if (!chart) return;
    preview = null;
    keep(choose(plan, chart, choiceOf(option), nowIndex, scopeOf(chart, nowIndex, scope)));
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
      preview = null;
      index = to;
    },
    /** Steps through the form, round its ends. */
    step(by: number) {
      const { length } = planned;
      preview = null;
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
    /** Everything that could be played over the chord sounding now, best first. */
    get options() {
      return options;
    },
    get current() {
      return current;
    },
    get preview() {
      return preview;
    },
    look(at: Option | null) {
      preview = at;
    },
    get lanes() {
      return lanes;
    },
    /** What is notable about the change out of the chord sounding now, or around it. */
    get remarksNow() {
      // What is said of fewest chords says the most of this change.
      return remarks
        .filter(({ from, to }) => from <= nowIndex && nowIndex < to)
        .toSorted((a, b) => a.to - a.from - (b.to - b.from));
    },
    choose: chooseOption,
    /** Takes the first answer of a lens over the chord sounding now. */
    chooseLens(lens: Lens) {
      const first = contexts[nowIndex] && options.filter((option) => option.lens === lens)[0];
      if (first) chooseOption(first, 'chord');
    },
    /** Moves the point inside a chord where its second sound begins, by half bars. */
    switchAfter(after: number) {
      const own = plan.choices[String(nowIndex)];
      if (own?.then) {
        const moved = { ...own, then: { ...own.then, after } };
        keep({ ...plan, choices: { ...plan.choices, [String(nowIndex)]: moved } });
      }
    },
    setIntent(intent: Intent, scope: Scope) {
      if (!chart) return;
      const intents = { ...plan.intents };
      for (const index of scopeOf(chart, nowIndex, scope)) intents[String(index)] = intent;
      keep({ ...plan, intents });
    },
    /** Takes what a style proposes, as far as the scope reaches. */
    takeProposal(proposal: readonly Choice[], scope: Scope) {
      if (chart) keep(takeProposal(plan, proposal, scopeOf(chart, nowIndex, scope)));
    },
    togglePreferred(lens: Lens) {
      const { preferred } = plan;
      const without = preferred.filter((one) => one !== lens);
      keep({ ...plan, preferred: preferred.includes(lens) ? without : [...without, lens] });
    },
    setLane(lane: LaneView) {
      changePlan({ lane });
    },
    /** The guide-tone lane the strip draws; null when it draws none, or the route. */
    get lane(): LaneKind | null {
      return plan.lane === 'none' || plan.lane === 'route' ? null : plan.lane;
    },
    changeTargets(changed: Partial<TargetSettings>) {
      changePlan({ targets: { ...plan.targets, ...changed } });
    },
    /** Sets the target of a chord by hand; the same place again lets it go. */
    pin(chord: number, place: NeckPlace) {
      const id = String(chord);
      const { [id]: old, ...rest } = plan.pins;
      const again = old?.string === place.string && old.fret === place.fret;
      const { string, fret } = place;
      const pins = again ? rest : { ...rest, [id]: { string, fret } };
      changePlan({ pins, targets: { ...plan.targets, shown: true, chosen: 0 } });
    },
    unpin() {
      changePlan({ pins: {} });
    },
    keepSheet(sheet: Sheet) {
      changePlan({ sheets: [...plan.sheets.filter(({ id }) => id !== sheet.id), sheet] });
    },
    dropSheet(id: string) {
      changePlan({ sheets: plan.sheets.filter((sheet) => sheet.id !== id) });
    },
    toggleCrossing() {
      changePlan({ crossing: plan.crossing === 'chords' ? 'choices' : 'chords' });
    },
    /** Puts a choice whose chord is gone on the chord sounding now. */
    putBack(one: SetAside) {
      const setAside = plan.setAside.filter((other) => other !== one);
      const choices = one.choice
        ? { ...plan.choices, [String(nowIndex)]: one.choice }
        : plan.choices;
      keep({ ...plan, setAside, choices });
    },
    dropSetAside() {
      keep({ ...plan, setAside: [] });
    },
  };
}

export type PlanSession = ReturnType<typeof createSession>;
