/** What is asked of the targets of a chart as it is planned. */
import type { Neck } from 'corvel-core';
import { type Place, stringCount } from '$core/neck/neck';
import type { RouteRequest } from '$core/targets/request';
import type { Study } from './study.svelte';

/** A pin, where the instrument has its place. */
const pinOn = (neck: Neck, pin: Place | undefined): Place | null =>
  pin && pin.string <= stringCount(neck) && pin.fret >= neck.capo && pin.fret <= neck.frets
    ? pin
    : null;

/** The best way through the form, by the plan's preferences, pins and zone. */
export function routeRequest({
  plan,
  neck,
  planned,
  zone,
}: Pick<Study, 'plan' | 'neck' | 'planned' | 'zone'>): RouteRequest {
  const { prefer, contour, free } = plan.targets;
  return {
    neck,
    chords: planned.map(({ chord, intent, material, index }) => ({
      chord,
      intent,
      material,
      pin: pinOn(neck, plan.pins[String(index)]),
    })),
    prefer,
    zone: free ? null : zone,
    contour,
    loop: true,
    count: 1,
  };
}
