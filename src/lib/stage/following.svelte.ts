/** The stage of one device follows another's: the same chart, chord, key and zone, without a sound of its own. */
import { onMount } from 'svelte';
import { onMessage, onReturn, PAGE, tellStage } from '$lib/live/live';
import type { StageMessage } from '$lib/live/messages';
import type { Study } from '$lib/study/study.svelte';
import { openPage, staying } from '$lib/ui/anew';

/** Whether this page follows: it goes on from chart to chart. */
let follows = $state(false);
/** Where the other device was last heard to be. */
let heard = $state.raw<StageMessage | null>(null);

/** Half steps above the written key that are followed; null where nobody is. */
export const shiftFollowed = (chart: string): number | null =>
  follows && heard?.chart === chart ? heard.shift : null;

interface Here {
  readonly playing: () => boolean;
  readonly index: () => number;
  readonly shift: () => number;
  readonly stop: () => void;
}

/** Follows where that is asked for, and lets others follow. */
export function createFollowing(study: Study, here: Here) {
  const place = () => ({
    chart: study.id,
    playing: here.playing(),
    index: here.index(),
    shift: here.shift(),
    zone: { low: study.zone.low, high: study.zone.high },
  });

  /** To the chart of the other device; a press of the player's own that leads elsewhere comes first. */
  async function goAlong() {
    const here = staying();
    if (!(await here()) || !follows || !heard || heard.chart === study.id) return;
    await openPage(`/plan/${heard.chart}/play`);
  }

  function take(message: StageMessage) {
    if (message.page === PAGE) return;
    heard = message;
    if (!follows) return;
    if (message.chart !== study.id) {
      void goAlong();
      return;
    }
    here.stop();
    study.go(message.index);
    const { low, high } = message.zone;
    if (low !== study.zone.low || high !== study.zone.high) study.dragZone({ low, high });
  }

  $effect(() => {
    const at = place();
    if (!follows) tellStage(at);
  });
  onMount(() => {
    const say = () => {
      if (!follows) tellStage(place());
    };
    const ends = [onMessage('stage', take), onMessage('devices', say), onReturn(say)];
    if (heard) take(heard);
    return () => {
      for (const end of ends) end();
    };
  });

  return {
    get on() {
      return follows;
    },
    /** Whether the other device plays; null where none has been heard. */
    get otherPlays() {
      return heard?.playing ?? null;
    },
    start() {
      follows = true;
      if (heard) take(heard);
    },
    stop() {
      follows = false;
    },
  };
}
