/** Room for the zone along the drawn neck, changing smoothly as the zone moves. */
import { untrack } from 'svelte';
import { cubicOut } from 'svelte/easing';
import { prefersReducedMotion, Tween } from 'svelte/motion';
import { wiresOf } from '$core/neck/geometry';
import type { Neck, Zone } from 'corvel-core';
import { afterPaint } from '$lib/ui/afterPaint.svelte';

/** How long the change takes, in milliseconds. */
const CHANGE = 140;

interface Wanted {
  readonly neck: Neck;
  /** The frets given more room than the rest; null for none. */
  readonly focus: Zone | null;
}

/** Positions of the fret wires that follow what is wanted; another neck is there at once. */
export function createWires(wanted: () => Wanted): { readonly current: readonly number[] } {
  const goal = $derived.by(() => {
    const { neck, focus } = wanted();
    return [...wiresOf(neck.frets, focus)];
  });
  const tween = new Tween(
    untrack(() => goal),
    { duration: CHANGE, easing: cubicOut },
  );
  $effect(() => {
    const to = goal;
    if (prefersReducedMotion.current || tween.target.length !== to.length)
      void tween.set(to, { duration: 0 });
    // The zone is seen to have moved before the frets begin to.
    else return afterPaint(() => void tween.set(to));
  });
  return {
    get current() {
      return tween.current.length === goal.length ? tween.current : goal;
    },
  };
}
