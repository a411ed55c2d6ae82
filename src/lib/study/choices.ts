/** From a plan's choices to what is played over each chord. */
import type { Chart, Option } from 'corvel-core';
import type { PlayedChord } from '$core/chart/form';
import { sameChord } from '$core/chords/chords';
import type { Intent, LensContext } from '$core/lenses/lens';
import type { Lens } from '$core/lenses/table';
import { defaultMaterial, type Material, parseMaterial } from '$core/lenses/material';
import { firstOption, suggest } from '$core/lenses/options';
import type { Choice } from '$core/lenses/styles';
import type { Later } from '$core/lines/spans';
import type { Plan, PlanChoice } from './plan';
import { barOf } from '$core/time/metre';

/** A chord of the chart with what is played over it. */
export interface PlannedChord extends PlayedChord {
  readonly lens: Lens;
  readonly material: Material;
  /** Another sound from some half bar of the chord on. */
  readonly then: { readonly material: Material; readonly after: number } | null;
  readonly intent: Intent;
  /** Whether the player chose it, rather than the plan's base lens. */
  readonly chosen: boolean;
}

/** The half bars a chord lasts, one at the least: where a second sound may begin. */
export const halfBarsOf = ({ source }: Chart, { beats }: PlannedChord): number =>
  Math.max(1, Math.floor((beats * 2) / barOf(source.time)));

/** The second sound of each chord that has one, with how long the chord goes before it. */
export const latersOf = (
  { source }: Chart,
  planned: readonly PlannedChord[],
): readonly (Later | null)[] =>
  planned.map(
    ({ then }) => then && { material: then.material, after: (then.after * barOf(source.time)) / 2 },
  );

export const SCOPES = ['chord', 'equal', 'section', 'chart'] as const;
/** What a choice is set for. */
export type Scope = (typeof SCOPES)[number];

/** What a choice over a chord reaches, by one name wherever it is said. */
export function scopeName(scope: Scope, symbol: string): string {
  switch (scope) {
    case 'chord':
      return 'this chord';
    case 'equal':
      return `every ${symbol}`;
    case 'section':
      return 'this section';
    case 'chart':
      return 'the whole chart';
  }
}

const DEFAULT_INTENT: Intent = 'lean';

/** What a chord begins with: a lens for all, or what ranks first over it. */
const startingChoice = (base: Lens | null, first: Option | null): PlanChoice => ({
  lens: base ?? first?.lens ?? 'own-pentatonic',
  name: first?.material.name ?? null,
  then: null,
});

function materialFor(choice: PlanChoice, context: LensContext): Material {
  const named = choice.name === null ? null : parseMaterial(choice.name);
  return named ?? suggest(context, [choice.lens])[0]?.material ?? defaultMaterial(context.chord);
}

/** What is played over every chord of a chart by an aligned plan. */
export function planChords(
  chart: Chart,
  contexts: readonly LensContext[],
  plan: Plan,
): readonly PlannedChord[] {
  return chart.chords.flatMap((played): readonly PlannedChord[] => {
    const context = contexts[played.index];
    if (!context) return [];
    const own = plan.choices[String(played.index)];
    const first = own || plan.base !== null ? null : firstOption(context);
    const choice = own ?? startingChoice(plan.base, first);
    const later = choice.then && parseMaterial(choice.then.name);
    return [
      {
        ...played,
        lens: choice.lens,
        material: materialFor(choice, context),
        then: later && choice.then ? { material: later, after: choice.then.after } : null,
        intent: plan.intents[String(played.index)] ?? first?.intent ?? DEFAULT_INTENT,
        chosen: own !== undefined,
      },
    ];
  });
}

/** The chords a scope reaches from one of them, by index. */
export function scopeOf(chart: Chart, index: number, scope: Scope): readonly number[] {
  const here = chart.chords[index];
  if (!here) return [];
  const sectionOf = (played: PlayedChord) => chart.bars[played.bar - 1]?.section;
  const reached = (played: PlayedChord): boolean => {
    switch (scope) {
      case 'chord':
        return played.index === index;
      case 'equal':
        return sameChord(played.chord, here.chord);
      case 'section':
        return sectionOf(played) === sectionOf(here);
      case 'chart':
        return true;
    }
  };
  return chart.chords.filter(reached).map((played) => played.index);
}

/** An option as a plan keeps it. */
export const choiceOf = ({ lens, material, then }: Option): PlanChoice => ({
  lens,
  name: material.name,
  then: then && { name: then.to.name, after: then.after },
});

/**
 * The plan with an option chosen over some chords: as it is over the same chord and for the key's
 * one scale, elsewhere the same lens with its own first answer.
 */
export function choose(
  plan: Plan,
  chart: Chart,
  option: PlanChoice,
  from: number,
  indices: readonly number[],
): Plan {
  const here = chart.chords[from];
  const choices = { ...plan.choices };
  for (const index of indices) {
    const there = chart.chords[index];
    const same = here && there && sameChord(here.chord, there.chord);
    choices[String(index)] =
      same || option.lens === 'key-scale' ? option : { lens: option.lens, name: null, then: null };
  }
  return { ...plan, choices };
}

/** The plan with a style's proposal taken over some chords. */
export function takeProposal(
  plan: Plan,
  proposal: readonly Choice[],
  indices: readonly number[],
): Plan {
  const choices = { ...plan.choices };
  const intents = { ...plan.intents };
  for (const index of indices) {
    const proposed = proposal[index];
    if (!proposed) continue;
    const { lens, material, intent } = proposed;
    choices[String(index)] = { lens, name: material.name, then: null };
    intents[String(index)] = intent;
  }
  return { ...plan, choices, intents };
}

export const INTENT_NAMES: Readonly<Record<Intent, readonly [name: string, says: string]>> = {
  outline: ['Outline', 'Land on a guide tone, so that the change is heard.'],
  lean: ['Lean', 'Touch a note that names the chord in passing, and stay free otherwise.'],
  coast: ['Coast', 'Stay on the scale you are in and let the change go by.'],
};
