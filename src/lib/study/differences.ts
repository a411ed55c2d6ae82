/** What two versions of a plan differ in, in words. */
import { type Plan, readPlan } from './plan';

const NAMES = {
  base: 'the lens of all chords',
  targets: 'how targets are chosen',
  sheets: 'the sheets kept',
  melody: 'the melody',
  preferred: 'the lenses preferred',
  zone: 'the zone',
  instrument: 'the instrument',
  setAside: 'the choices set aside',
} as const satisfies Partial<Record<keyof Plan, string>>;

const sameValue = (one: unknown, other: unknown): boolean =>
  JSON.stringify(one) === JSON.stringify(other);

const choiceName = (plan: Plan, index: string): string => {
  const choice = plan.choices[index];
  return choice === undefined ? 'no choice' : (choice.name ?? choice.lens);
};

/** One sentence for each difference: chord by chord the choices, then the rest by name. */
export function planDifferences(mineJson: string, theirsJson: string): readonly string[] {
  const mine = readPlan(mineJson);
  const theirs = readPlan(theirsJson);
  const indices = new Set(
    [mine, theirs].flatMap(({ choices, intents, pins }) =>
      [choices, intents, pins].flatMap((record) => Object.keys(record)),
    ),
  );
  const ordered = [...indices].sort((a, b) => Number(a) - Number(b));
  const chords = ordered.flatMap((index) => {
    const at = Number(index);
    const bar = mine.bars[at] ?? theirs.bars[at];
    const chord = mine.chords[at] ?? theirs.chords[at] ?? 'a chord';
    const where = bar === undefined ? chord : `Bar ${bar}, ${chord}`;
    const said: string[] = [];
    if (!sameValue(mine.choices[index], theirs.choices[index])) {
      said.push(`${choiceName(mine, index)} here, ${choiceName(theirs, index)} there`);
    }
    if (mine.intents[index] !== theirs.intents[index]) {
      said.push(
        `${mine.intents[index] ?? 'proposed'} here, ${theirs.intents[index] ?? 'proposed'} there`,
      );
    }
    if (!sameValue(mine.pins[index], theirs.pins[index])) said.push('another target pinned');
    return said.length === 0 ? [] : [`${where}: ${said.join('; ')}.`];
  });
  const rest = (Object.keys(NAMES) as (keyof typeof NAMES)[])
    .filter((name) => !sameValue(mine[name], theirs[name]))
    .map((name) => NAMES[name]);
  return rest.length === 0 ? chords : [...chords, `Different too: ${rest.join(', ')}.`];
}
