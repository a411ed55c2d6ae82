/**
 * What is being studied: a chart with its plan, read and laid on an instrument, and the place in it.
 * Made once for a chart and shared by every screen of it.
 */
import { createContext, untrack } from 'svelte';
import type { Chart, Zone } from 'corvel-core';
import { nextChange, readChart, unreadableBars } from '$core/chart/form';
import type { Problem } from '$core/chart/syntax';
import { readHarmony } from '$core/harmony/reading';
import { type Key, signatureTonic } from '$core/keys/keys';
import { lensContexts } from '$core/lenses/options';
import { fitZone, slideZone, stringCount } from '$core/neck/neck';
import { firstZone, zonesOf } from '$core/neck/zones';
import { instrumentOf, neckOf } from '$lib/settings/settings';
import type { SettingsStore } from '$lib/settings/store.svelte';
import { alignPlan } from './align';
import { saveView } from './api';
import { type PlannedChord, planChords } from './choices';
import type { ChartEditing } from './document.svelte';
import { type PlanEdit, setZone } from './edits';
import type { ChartPlace } from './place';
import { fitLoop, fitsChart } from './loops';
import { isNewerPlan, type Plan, readPlan, writePlan } from './plan';
import type { Loop } from './playing';
import { readView, type View } from './view';

const NONE_UNREADABLE: ReadonlyMap<number, Problem> = new Map();

/** How long looks are gathered before they are kept, in milliseconds. */
const VIEW_DELAY = 500;

interface StudyStart {
  readonly id: string;
  readonly document: ChartEditing;
  readonly settings: SettingsStore;
  /** The view kept with the chart, as JSON. */
  readonly view: string;
  readonly place: ChartPlace;
}

export function createStudy({ id, document, settings, view: kept, place }: StudyStart) {
  let index = $state(place.index);
  /** A zone under the player's hand, not kept yet. */
  let draggedZone = $state.raw<Zone | null>(place.zone);
  const openedView = readView(kept);
  let view = $state.raw<View>(openedView);
  let sentView = openedView;
  let viewTimer: ReturnType<typeof setTimeout> | undefined;

  // An edit of the plan leaves the text, and what is read in it, as they are.
  const text = $derived(document.text);
  const result = $derived(readChart(text));
  let lastGood: Chart | null = null;
  const shown = $derived.by(() => {
    if (result.ok) lastGood = result.chart;
    return lastGood || result.ok
      ? { chart: lastGood, inPart: null }
      : { chart: result.readable, inPart: result.readable };
  });
  const chart = $derived(shown.chart);
  /** The chart as far as its text can be read, where it never could be read whole. */
  const inPart = $derived(shown.inPart);
  const reading = $derived(chart ? readHarmony(chart) : null);
  const key = $derived<Key | null>(reading?.key.key ?? null);
  const planText = $derived(document.plan);
  /** The plan as it was last edited here: read anew, nothing in it would be known for the same. */
  let written: { readonly text: string; readonly plan: Plan } | null = null;
  const keptPlan = $derived.by(() =>
    written?.text === planText ? written.plan : readPlan(planText),
  );
  const newerPlan = $derived.by(() => written?.text !== planText && isNewerPlan(planText));
  const instrument = $derived(instrumentOf(settings.current, keptPlan.instrument));
  const neck = $derived(neckOf(instrument));
  const plan = $derived(chart ? alignPlan(keptPlan, chart, neck) : keptPlan);

  const contexts = $derived(chart && reading ? lensContexts(chart, reading) : []);
  /** What of the plan decides what is played: the rest of it may change without any of that. */
  const decided = $derived(JSON.stringify([plan.base, plan.choices, plan.intents]));
  const planned = $derived.by(() => {
    void decided;
    return chart
      ? planChords(
          chart,
          contexts,
          untrack(() => plan),
        )
      : [];
  });
  const nowIndex = $derived(Math.max(0, Math.min(index, planned.length - 1)));
  const now = $derived<PlannedChord | null>(planned[nowIndex] ?? null);
  const nextIndex = $derived(chart ? nextChange(chart, nowIndex) : null);
  const next = $derived<PlannedChord | null>(
    nextIndex === null ? null : (planned[nextIndex] ?? null),
  );

  /** The tonic by which zones are laid out; null for a chart without chords. */
  const tonic = $derived(key ? signatureTonic(key) : (planned[0]?.chord.root ?? null));
  const zones = $derived(tonic === null ? [] : zonesOf(neck, tonic));
  const opening = $derived(tonic === null ? { low: 2, high: 6 } : firstZone(neck, tonic));
  const zone = $derived.by((): Zone => {
    const wanted = draggedZone ?? plan.zone ?? opening;
    return fitZone(neck, wanted.low, wanted.high);
  });

  const here = $derived<ChartPlace>({ index: nowIndex, zone });

  /** The view as far as this instrument has it: strings that are not there hide no others. */
  const seen = $derived(
    view.strings?.every((string) => string > stringCount(neck)) ? { ...view, strings: null } : view,
  );

  /** Keeps an edit of the plan; edits in the same group within a second undo as one. */
  function edit(change: PlanEdit, group: string | null = null) {
    // What this Corvel cannot read it must not write over.
    if (newerPlan) return;
    const edited = change(plan);
    written = { text: writePlan(edited), plan: edited };
    document.edit({ plan: written.text }, group);
  }

  function sendView() {
    clearTimeout(viewTimer);
    viewTimer = undefined;
    if (sentView === view) return;
    sentView = view;
    void saveView(id, view);
  }

  return {
    id,
    document,
    settings,
    get title() {
      return chart?.source.title || 'Untitled';
    },
    get chart() {
      return chart;
    },
    get problems() {
      return result.ok ? [] : result.problems;
    },
    /** Bars of the chart shown of which something cannot be read, and what. */
    get unreadable(): ReadonlyMap<number, Problem> {
      return inPart && !result.ok ? unreadableBars(inPart, result.problems) : NONE_UNREADABLE;
    },
    /** What is shown in place of a chart whose text cannot be read as it stands. */
    get shownInstead(): 'last readable' | 'in part' | 'nothing' | null {
      if (result.ok) return null;
      if (inPart) return 'in part';
      return chart ? 'last readable' : 'nothing';
    },
    get reading() {
      return reading;
    },
    /** The chart's key, stated or heard; null where no single one holds. */
    get key() {
      return key;
    },
    get instrument() {
      return instrument;
    },
    get neck() {
      return neck;
    },
    get plan() {
      return plan;
    },
    edit,
    /** Whether the plan was written by a newer Corvel: it is kept as it is. */
    get newerPlan() {
      return newerPlan;
    },
    /** What every lens needs to know of every chord, in order. */
    get contexts() {
      return contexts;
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
    get nowIndex() {
      return nowIndex;
    },
    go(to: number) {
      index = to;
    },
    /** Steps through the form, round its ends. */
    step(by: number) {
      const { length } = planned;
      if (length > 0) index = (nowIndex + by + length) % length;
    },
    /** Where the player is: the chord sounding now, and the zone. */
    get place() {
      return here;
    },
    get zone() {
      return zone;
    },
    /** The five zones of the chart's key on this neck. */
    get zones() {
      return zones;
    },
    dragZone(wanted: Zone) {
      draggedZone = fitZone(neck, wanted.low, wanted.high);
    },
    /** Keeps the zone once the hand has let go of it. */
    keepZone() {
      if (draggedZone === null) return;
      const wanted = draggedZone;
      draggedZone = null;
      edit(setZone(wanted), 'zone');
    },
    chooseZone(wanted: Zone) {
      draggedZone = null;
      edit(setZone(fitZone(neck, wanted.low, wanted.high)), 'zone');
    },
    slideZone(frets: number) {
      this.chooseZone(slideZone(neck, zone, frets));
    },
    get view() {
      return seen;
    },
    /** The bars that go round, as they are seen, chosen and played; null for the form. */
    get loop(): Loop | null {
      return chart && view.play.loop && fitsChart(chart, view.play.loop)
        ? fitLoop(chart, view.play.loop)
        : null;
    },
    setLoop(loop: Loop | null) {
      this.look({ play: { ...view.play, loop } });
    },
    look(changed: Partial<View>) {
      view = { ...view, ...changed };
      // The first of a burst goes at once, the last when the burst is over.
      if (viewTimer === undefined) {
        sendView();
        viewTimer = setTimeout(sendView, VIEW_DELAY);
      }
    },
    /** Sends what is not kept yet; to be called when the page of the chart is left. */
    leave() {
      sendView();
      document.leave();
    },
  };
}

export type Study = ReturnType<typeof createStudy>;

/** The study of the chart whose screens are shown. */
export const [getStudy, setStudy] = createContext<Study>();
