/** A sitting of drills: card after card, what is answered to each, and what came of it. */
import { untrack } from 'svelte';
import { type Neck, type Note, noteName, parseNote } from 'corvel-core';
import { readChart } from '$core/chart/form';
import type { Drill, DrillAnswer } from '$core/drills/kinds';
import { isRight, makeDrill } from '$core/drills/drills';
import { readHarmony } from '$core/harmony/reading';
import { type Place, samePlace } from '$core/neck/neck';
import { send, waitingBelow } from '$lib/kept/outbox.svelte';
import { freshId } from '$lib/ui/ids';
import { keepStint } from '$lib/log/api';
import { localMoment, NO_CHART, STINT } from '$lib/log/messages';
import { warn } from '$lib/ui/messages.svelte';
import type { DrillCard } from './cards';

const CARDS = '/api/cards';

/** A card as it was dealt: one that is dealt again is another. */
const dealtAs = ({ id, seen }: Readonly<Record<string, unknown>>): string => `${id} ${seen}`;

/** The charts of the cards, by their ids. */
export type Texts = Readonly<Record<string, { readonly title: string; readonly text: string }>>;

/** What a sitting is about: its cards, their charts, and the neck they are asked on. */
export interface Dealt {
  readonly cards: readonly DrillCard[];
  readonly texts: Texts;
  readonly neck: Neck;
}

/** The notes to choose from, as they are named without a chord; each at its pitch class. */
export const NOTES: readonly Note[] = 'C Db D Eb E F Gb G Ab A Bb B'
  .split(' ')
  .flatMap((name) => parseNote(name) ?? []);

export function createSitting(dealt: () => Dealt) {
  let index = $state(0);
  // What was answered here while the server was away is not asked again when the page is loaded anew.
  const answeredBefore = waitingBelow(CARDS).map(({ fields }) => dealtAs(fields));
  const cards = untrack(() =>
    dealt().cards.filter((one) => !answeredBefore.includes(dealtAs({ ...one }))),
  );
  const card = $derived(cards[index] ?? null);
  const drill = $derived.by((): Drill | null => {
    if (!card) return null;
    const { texts, neck } = dealt();
    const read = card.chart === null ? null : readChart(texts[card.chart]?.text ?? '');
    const chart = read?.ok ? read.chart : null;
    return makeDrill(card.kind, card.seed, {
      neck,
      zone: card.zone,
      chords: chart?.chords ?? [],
      key: chart ? readHarmony(chart).key.key : null,
    });
  });
  const options = $derived(
    drill === null || drill.asks === 'places'
      ? []
      : drill.asks === 'note'
        ? NOTES.map(noteName)
        : (drill.choices ?? []),
  );

  let places = $state.raw<readonly Place[]>([]);
  let given = $state.raw<DrillAnswer | null>(null);
  const answered = $derived(given !== null);
  const right = $derived(drill !== null && given !== null && isRight(drill, given));
  /** What came back right, and what did not, of this sitting. */
  let outcome = $state.raw<readonly { readonly card: DrillCard; readonly right: boolean }[]>([]);
  const began = performance.now();
  const at = localMoment();
  const id = freshId();

  /** A sitting of half a minute and more is a stint, which grows with each answer. */
  function log() {
    const minutes = (performance.now() - began) / 60_000;
    const first = cards[0];
    const count = outcome.length;
    if (count === 0 || minutes < STINT.least || !first) return;
    const chart = cards.find((one) => one.chart !== null)?.chart ?? NO_CHART;
    void keepStint(id, {
      at,
      chart,
      exercise: 'drills',
      zone: first.zone,
      extent: 'form',
      tempo: 1,
      tempoFrom: 1,
      minutes: Math.min(STINT.most, minutes),
      asked: count,
      note: '',
      landed: outcome.filter((one) => one.right).length,
    });
  }

  const isChosen = (place: Place) => places.some((one) => samePlace(one, place));

  function answer(to: DrillAnswer) {
    if (answered || !drill || !card) return;
    given = to;
    outcome = [...outcome, { card, right }];
    const fields = { id: card.id, right, seen: card.seen, answer: freshId() };
    void send({ path: CARDS, method: 'POST', fields, what: 'This card’s answer' }).then((sent) => {
      if (sent.kind === 'refused' && sent.message !== '') warn(sent.message);
    });
    log();
  }

  return {
    get index() {
      return index;
    },
    /** How many cards it has. */
    get count() {
      return cards.length;
    },
    get card() {
      return card;
    },
    get drill() {
      return drill;
    },
    /** What can be chosen from; nothing where places are asked for. */
    get options() {
      return options;
    },
    /** The places chosen so far. */
    get places() {
      return places;
    },
    get answered() {
      return answered;
    },
    get right() {
      return right;
    },
    get outcome() {
      return outcome;
    },
    answer,
    choose(option: string) {
      if (!drill) return;
      if (drill.asks === 'note') {
        const note = parseNote(option);
        answer(note === null ? {} : { note });
      } else answer(drill.asks === 'degree' ? { degree: option } : { choice: option });
    },
    isChosen,
    toggle(place: Place) {
      if (answered || drill?.asks !== 'places') return;
      const { string, fret } = place;
      places = isChosen(place)
        ? places.filter((one) => !samePlace(one, place))
        : [...places, { string, fret }];
    },
    next() {
      given = null;
      places = [];
      index += 1;
    },
    /** Keeps what was done where the sitting ends before its last card. */
    end: log,
  };
}

export type Sitting = ReturnType<typeof createSitting>;
