/** What a chord does in its key, in words. */
import type { Role, RoleKind } from './roles';

/** Names and sentences of the kinds; `{of}` is what a role is of, `{chord}` the chord. */
const ROLE_WORDS: Readonly<Record<RoleKind, readonly [name: string, sentence: string]>> = {
  'blues home dominant': [
    'blues home dominant',
    '{chord} is a home colour of the blues; it need not resolve.',
  ],
  'dominant with altered tensions': [
    'dominant with altered tensions',
    '{chord} is the V with tensions from outside the key.',
  ],
  'backdoor dominant': [
    'backdoor dominant',
    '{chord} comes home by a whole step up instead of a fifth down.',
  ],
  'dominant chain': [
    'dominant falling by half steps',
    '{chord} falls a half step to the next dominant, whose own dominant it stands in for.',
  ],
  'tritone substitute': [
    'tritone substitute of {of}',
    '{chord} stands in for {of}, a tritone away: same third and seventh.',
  ],
  'secondary dominant': ['secondary dominant of {of}', '{chord} is the dominant of {of}.'],
  'related supertonic': ['ii of a ii–V to {of}', '{chord} prepares the dominant of {of}.'],
  'passing diminished': [
    'passing diminished',
    '{chord} passes by half step between its neighbours.',
  ],
  'common-tone diminished': [
    'common-tone diminished',
    '{chord} shares its root with the chord it leads to.',
  ],
  'diminished in place of a dominant': [
    'diminished in place of a dominant',
    '{chord} does a dominant’s work without the root.',
  ],
  'local tonic': [
    'local tonic',
    '{chord} is home for its moment: its dominant has just led there.',
  ],
  'of a local key': [
    'in the key of {of} for the moment',
    '{chord} belongs to {of}, home for the moment.',
  ],
  'chromatic ii–V': [
    'of a ii–V a half step above {of}',
    '{chord} belongs to a ii–V that slides down a half step to {of}.',
  ],
  passing: ['passing chord', '{chord} passes: its shape slides a half step into the next chord.'],
  borrowed: ['borrowed from {of}', '{chord} is borrowed from the parallel {of}.'],
  'dominant as a blues colour': [
    'dominant as a blues colour',
    '{chord} is a dominant for its colour, not to resolve.',
  ],
  'chromatic mediant': [
    'chromatic mediant',
    '{chord} lies a third from the tonic and shares a note with it.',
  ],
  chromatic: ['chromatic', '{chord} comes from outside the key.'],
};

/** The role in the field's terms: "secondary dominant of ii". */
export function roleName({ kind, of, unresolved }: Role): string {
  const [name] = ROLE_WORDS[kind];
  const said = of === null ? name.replace(' of {of}', '') : name.replace('{of}', of);
  return unresolved ? `${said}, left unresolved` : said;
}

/** Why the chord is there, as a short sentence for the player. */
export function roleSentence({ kind, of, unresolved }: Role, symbol: string): string {
  const sentence = ROLE_WORDS[kind][1].replace('{chord}', symbol).replace('{of}', of ?? 'the V');
  return unresolved ? sentence.replace(/\.$/u, ', left unresolved.') : sentence;
}
