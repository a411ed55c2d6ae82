/** Edits of a plan: each a function from plan to plan, whatever shows it. */
import type { Chart, Option, Zone } from 'corvel-core';
import type { Intent } from '$core/lenses/lens';
import type { Lens } from '$core/lenses/table';
import type { Choice } from '$core/lenses/styles';
import type { Place } from '$core/neck/neck';
import { choiceOf, choose, type PlannedChord, type Scope, scopeOf, takeProposal } from './choices';
import type { Plan, PracticeSheet, SetAside, TargetSettings } from './plan';

export type PlanEdit = (plan: Plan) => Plan;

const without = <T>(list: readonly T[], one: T): T[] => list.filter((other) => other !== one);

/** Takes an option over a chord, and as far as the scope reaches. */
export const chooseOption =
  (chart: Chart, index: number, option: Option, scope: Scope): PlanEdit =>
  (plan) =>
    choose(plan, chart, choiceOf(option), index, scopeOf(chart, index, scope));

/** Takes what a style proposes, as far as the scope reaches. */
export const takeStyle =
  (chart: Chart, index: number, proposal: readonly Choice[], scope: Scope): PlanEdit =>
  (plan) =>
    takeProposal(plan, proposal, scopeOf(chart, index, scope));

/** Moves the point inside a chord where its second sound begins, by half bars. */
export const switchAfter =
  (index: number, after: number): PlanEdit =>
  (plan) => {
    const own = plan.choices[String(index)];
    if (!own?.then) return plan;
    const moved = { ...own, then: { ...own.then, after } };
    return { ...plan, choices: { ...plan.choices, [String(index)]: moved } };
  };

/** Plays an option over the rest of a chord, from some half bar on, after what is played there; or no longer. */
export const thenPlay =
  ({ index, lens, material }: PlannedChord, option: Option | null, after: number): PlanEdit =>
  (plan) => {
    const then = option && { name: option.material.name, after };
    const own = plan.choices[String(index)] ?? { lens, name: material.name };
    return { ...plan, choices: { ...plan.choices, [String(index)]: { ...own, then } } };
  };

export const setIntent =
  (chart: Chart, index: number, intent: Intent, scope: Scope): PlanEdit =>
  (plan) => {
    const reached = scopeOf(chart, index, scope).map((one) => [String(one), intent] as const);
    return { ...plan, intents: { ...plan.intents, ...Object.fromEntries(reached) } };
  };

/** Ranks a lens before others, or no longer. */
export const togglePreferred =
  (lens: Lens): PlanEdit =>
  (plan) => {
    const others = without(plan.preferred, lens);
    return { ...plan, preferred: plan.preferred.includes(lens) ? others : [...others, lens] };
  };

export const setZone =
  ({ low, high }: Zone): PlanEdit =>
  (plan) => ({ ...plan, zone: { low, high } });

/** Another instrument: zones are of the one they were set on. */
export const setInstrument =
  (id: string): PlanEdit =>
  (plan) => ({ ...plan, instrument: id, zone: null });

export const changeTargets =
  (changed: Partial<TargetSettings>): PlanEdit =>
  (plan) => ({ ...plan, targets: { ...plan.targets, ...changed } });

/** Sets the target of a chord by hand; the same place again lets it go. */
export const pin =
  (index: number, { string, fret }: Place): PlanEdit =>
  (plan) => {
    const id = String(index);
    const { [id]: old, ...rest } = plan.pins;
    const again = old?.string === string && old.fret === fret;
    const pins = again ? rest : { ...rest, [id]: { string, fret } };
    return { ...plan, pins, targets: { ...plan.targets, chosen: 0 } };
  };

export const unpin: PlanEdit = (plan) => ({ ...plan, pins: {} });

export const keepSheet =
  (sheet: PracticeSheet): PlanEdit =>
  (plan) => ({ ...plan, sheets: [...plan.sheets.filter(({ id }) => id !== sheet.id), sheet] });

export const dropSheet =
  (id: string): PlanEdit =>
  (plan) => ({ ...plan, sheets: plan.sheets.filter((sheet) => sheet.id !== id) });

/** Sets the tune's melody; null takes it away. */
export const setMelody =
  (melody: Plan['melody']): PlanEdit =>
  (plan) => ({ ...plan, melody });

/** Puts a choice whose chord is gone on another chord. */
export const putBack =
  (index: number, one: SetAside): PlanEdit =>
  (plan) => {
    const choices = one.choice ? { ...plan.choices, [String(index)]: one.choice } : plan.choices;
    const pins = one.pin ? { ...plan.pins, [String(index)]: one.pin } : plan.pins;
    return { ...plan, choices, pins, setAside: without(plan.setAside, one) };
  };

export const dropSetAside: PlanEdit = (plan) => ({ ...plan, setAside: [] });
