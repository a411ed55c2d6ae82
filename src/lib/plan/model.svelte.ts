/** What Plan shows of the chord sounding now and of the change to the next, and what may be done there. */
import { createContext } from 'svelte';
import { chordNotes, type Option } from 'corvel-core';
import { nextChange } from '$core/chart/form';
import { cross } from '$core/crossings/crossing';
import { type Lane, lanesOf } from '$core/crossings/lanes';
import { melodyOver } from '$lib/study/melody';
import { laneOfMelody } from './melodyLane';
import { adviceAt } from '$core/crossings/advice';
import { remarksOn } from '$core/crossings/remarks';
import type { Lens } from '$core/lenses/table';
import { modeAt } from '$core/lenses/modes';
import { optionsFor } from '$core/lenses/options';
import { filterMarks, type Layer, type LayerKind, layersFor, withGround } from '$core/neck/layers';
import { markNeck, type Sounding } from '$core/neck/marks';
import { onlyDegrees, withDegrees } from '$core/neck/only';
import { degreesShown } from '$lib/study/view';
import { sayChange } from '$core/targets/changes';
import { type Place, samePlace, wholeNeck } from '$core/neck/neck';
import type { PlannedChord, Scope } from '$lib/study/choices';
import { chooseOption, pin } from '$lib/study/edits';
import type { Study } from '$lib/study/study.svelte';
import { late } from '$lib/ui/afterPaint.svelte';
import { createTargets } from './targets.svelte';

export function createPlanModel(study: Study) {
  const targets = createTargets(study);
  let whole = $state(false);
  /**
   * The chord the panels speak of. A step draws the form and the neck first; what is said about the
   * chord follows with the next frame; after the frame of the neck beyond the zone where it is shown.
   */
  const seenIndex = late(() => study.nowIndex);
  const heardIndex = late(() => seenIndex.current);
  const saidIndex = $derived(whole ? heardIndex : seenIndex);
  const said = $derived(Math.max(0, Math.min(saidIndex.current, study.planned.length - 1)));
  const now = $derived<PlannedChord | null>(study.planned[said] ?? null);
  const next = $derived.by((): PlannedChord | null => {
    const index = study.chart ? nextChange(study.chart, said) : null;
    return index === null ? null : (study.planned[index] ?? null);
  });
  /** An option looked at before it is chosen; it is of one chord only. */
  let looked = $state.raw<{ readonly index: number; readonly option: Option } | null>(null);
  const preview = $derived(looked?.index === study.nowIndex ? (looked?.option ?? null) : null);

  const preferred = $derived(study.plan.preferred);
  const options = $derived.by((): readonly Option[] => {
    const { contexts, planned } = study;
    const context = contexts[said];
    if (!context || planned.length === 0) return [];
    const before = planned[(said + planned.length - 1) % planned.length];
    const neighbours = [before, next].flatMap((one) => (one ? [one.material] : []));
    return optionsFor(context, { neighbours, preferred });
  });
  /** The option that is chosen now, with what it covers and costs. */
  const current = $derived.by((): Option | null => {
    if (!now) return null;
    const same = options.filter(({ material }) => material.name === now.material.name);
    return same.find(({ lens }) => lens === now.lens) ?? same[0] ?? null;
  });

  const chords = $derived((study.chart?.chords ?? []).map(({ chord }) => chord));
  const lanes = $derived(lanesOf(chords));
  const melodyLane = $derived(
    study.chart && study.plan.melody
      ? laneOfMelody(
          study.chart,
          study.neck,
          melodyOver(study.plan, study.chart, study.key, study.neck),
        )
      : null,
  );
  const remarks = $derived(
    remarksOn(chords, study.reading?.blues ? (study.key?.tonic ?? null) : null),
  );
  const mode = $derived(
    study.chart && study.reading ? modeAt(study.chart, study.reading, study.nowIndex) : null,
  );

  /** Layers by everything they follow from: a form comes back to the same chords. */
  const knownLayers = $derived.by(() => {
    void [study.neck, study.zone, study.view.layers, study.view.strings];
    // Made anew when anything it depends on changes; its filling is nobody's cue to redraw.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    return new Map<string, readonly Layer[]>();
  });
  const layers = $derived.by((): readonly Layer[] => {
    const { now, view, neck, zone } = study;
    if (!now || !mode || view.layers.length === 0) return [];
    const { chord } = now;
    const id = `${chord.root} ${chord.quality.name} ${mode.root} ${mode.kind.name}`;
    const known = knownLayers.get(id);
    if (known) return known;
    const made = layersFor(view.layers, { neck, zone, chord, mode, strings: view.strings });
    knownLayers.set(id, made);
    return made;
  });
  /** What sounds of a chord: the choice over it, and a degree that is looked for where it lacks it. */
  const soundingOf = ({ chord, material }: Pick<PlannedChord, 'chord' | 'material'>): Sounding => {
    const degrees = degreesShown(study.view.only);
    const { notes } = material;
    return { chord, notes: degrees ? withDegrees(chord, notes, degrees) : notes };
  };
  const marks = $derived.by(() => {
    const { now, next, neck, zone, view } = study;
    if (!now) return [];
    const over = soundingOf(preview ? { ...now, material: preview.material } : now);
    const region = whole ? wholeNeck(neck) : zone;
    const marked = markNeck(neck, region, over, next ? soundingOf(next) : null);
    const shown = filterMarks(withGround(neck, marked, layers), {
      strings: view.strings,
      octaveFrom: view.oneOctave ? now.chord.root : null,
    });
    if (view.only === 'all') return shown;
    const degrees = degreesShown(view.only);
    if (degrees) return onlyDegrees(shown, degrees);
    const stops = [targets.stopAt(now.index), targets.stopAt(next?.index)];
    return shown.filter((mark) => stops.some((stop) => stop !== null && samePlace(stop, mark)));
  });
  const crossing = $derived.by(() => {
    const { view } = study;
    if (!now || !next) return null;
    const ofChords = view.crossing === 'chords' && preview === null;
    const shown = preview?.material ?? now.material;
    const before = ofChords ? chordNotes(now.chord) : shown.notes;
    const after = ofChords ? chordNotes(next.chord) : next.material.notes;
    return { before, after, ...cross(before, after) };
  });

  /** The change in words. */
  const change = $derived(
    now && next
      ? sayChange(now.chord, next.chord, {
          target: targets.stopAt(next.index),
          from: targets.stopAt(now.index),
        })
      : null,
  );

  return {
    targets,
    get change() {
      return change;
    },
    /** The chord the panels speak of, its place in the form, and what follows it. */
    get now() {
      return now;
    },
    get nowIndex() {
      return said;
    },
    get next() {
      return next;
    },
    get mode() {
      return mode;
    },
    get layers() {
      return layers;
    },
    get marks() {
      return marks;
    },
    get crossing() {
      return crossing;
    },
    /** Whether the whole neck is marked, or the zone only. */
    get whole() {
      return whole;
    },
    toggleWhole() {
      whole = !whole;
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
    look(option: Option | null) {
      looked = option && { index: said, option };
    },
    choose(option: Option, scope: Scope) {
      looked = null;
      const { chart } = study;
      if (chart) study.edit(chooseOption(chart, said, option, scope));
    },
    /** Takes the first answer of a lens over the chord sounding now. */
    chooseLens(lens: Lens) {
      // A key may come before the panels have followed the last step.
      seenIndex.catchUp();
      heardIndex.catchUp();
      const first = options.find((option) => option.lens === lens);
      if (first) this.choose(first, 'chord');
    },
    toggleLayer(kind: LayerKind) {
      const on = study.view.layers;
      study.look({
        layers: on.includes(kind) ? on.filter((one) => one !== kind) : [...on, kind],
      });
    },
    /** Sets the target of a chord by hand, and shows it. */
    pin(index: number, place: Place) {
      study.edit(pin(index, place));
      study.look({ targets: true });
    },
    /** The lane the strip draws; null where it draws none. */
    get lane(): Lane | null {
      const { lane } = study.view;
      if (lane === 'none') return null;
      if (lane === 'melody') return melodyLane;
      return lane === 'route' ? targets.lane : lanes[lane];
    },
    /** What is notable about the change out of the chord sounding now, or around it. */
    get remarksNow() {
      // What is said of fewest chords says the most of this change.
      return remarks
        .filter(({ from, to }) => from <= said && said < to)
        .toSorted((a, b) => a.to - a.from - (b.to - b.from));
    },
    /** What is said of the root as the chord sounding now comes; null where there is nothing to say. */
    get adviceNow() {
      const planned = now && study.planned[now.index - 1];
      return now
        ? adviceAt({
            chord: now.chord,
            material: (preview ?? now).material,
            before: planned ? planned.material : null,
            melody: melodyLane?.find(({ index }) => index === now.index)?.note ?? null,
          })
        : null;
    },
    /** The stretch of chords too fast to outline that holds the one sounding now, if any. */
    get fast() {
      return study.reading?.fast.find(({ from, to }) => from <= said && said <= to);
    },
    /** The cadences that hold the chord sounding now. */
    get cadencesNow() {
      return (study.reading?.cadences ?? []).filter(({ from, to }) => from <= said && said <= to);
    },
    /** Where a chord stands on paper: its written bar and its place in it. */
    writtenAt(index: number): { readonly bar: number; readonly slot: number } | null {
      const { chart, planned } = study;
      const played = planned[index];
      const here = chart?.bars[(played?.bar ?? 0) - 1];
      if (!chart || !played || !here) return null;
      const before = chart.source.sections.slice(0, here.section);
      const first = before.reduce((sum, { bars }) => sum + bars.length, 0);
      const inBar = chart.chords.filter(({ bar }) => bar === played.bar);
      return { bar: first + here.sourceBar, slot: inBar.indexOf(chart.chords[index] ?? played) };
    },
  };
}

type PlanModel = ReturnType<typeof createPlanModel>;

/** The model of the Plan shown. */
export const [getPlanModel, setPlanModel] = createContext<PlanModel>();
