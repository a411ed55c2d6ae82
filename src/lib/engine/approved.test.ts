/**
 * What Corvel answers about a few charts, written out in tests/approved as a teacher would check it: one
 * line a chord, an option, a stop, a bar. A rule, weight or tie-break that changes shows there, line by
 * line; `npm run approve` writes the answers anew, and the difference is read before it is committed.
 */
import { describe, expect, test } from 'vitest';
import { chordName, EXERCISES, STYLES } from 'corvel-core';
import { readHarmony } from '$core/harmony/reading';
import { roleName } from '$core/harmony/roleWords';
import { keyName } from '$core/keys/keys';
import { lensContexts, optionsFor } from '$core/lenses/options';
import { rankSum } from '$core/lenses/ranking';
import { propose } from '$core/lenses/styles';
import { STARTER_LICKS } from '$core/licks/starter';
import { DRILL_KINDS } from '$core/drills/kinds';
import { FEEL_KINDS } from '$core/time/feel';
import { SUBDIVISIONS } from '$core/time/subdivision';
import { group, range } from '$core/lists';
import { chartOf } from '$tests/laws';
import { LOOP_CHARTS } from '$tests/loops';
import { QUESTIONS } from './questions';

const CHARTS = {
  'a tune of ours':
    'title: Tin Roof Tuesday\nkey: Eb\ntempo: 96\nfeel: swing\n[A] x2\n| Ebmaj7 | Cm7 | Fm7 Bb7 | % |\n[B]\n| Abmaj7 | Abm6 Db9 | Gm7 C7b9 | Fm7 / Bb7 / |',
  'a minor tune':
    'title: Cellar Stairs\ntempo: 120\n| Am7 | Dm7 | Bm7b5 E7b9 | Am6 | Fmaj7 | Bb7 | Bm7b5 E7alt | Am(maj7) |',
  'a blues':
    'title: Boiler\ntempo: 110\nfeel: shuffle\n| A7 | D7 | A7 | % | D7 | D#dim7 | A7 | F#7 | Bm7 | E7 | A7 F#7 | Bm7 E7 |',
  'a loop': 'title: Four Lamps\ntempo: 100\n| G | D/F# | Em7 | Cmaj7 |',
  'a waltz':
    'title: Locks\ntime: 3/4\ntempo: 150\nkey: F\n| Fmaj7 | Dm7 | Gm7 | C7 | Am7 D7 | Gm7 C7sus4 | Faug | Bbm6 |',
  'far chords':
    'title: Stilts\n| Cmaj7 | Ebmaj7 | Abmaj7 | Bmaj7 | Ebm7 Ab7 | Db7 | C7#11 | N.C. |',
} as const;
type Named = keyof typeof CHARTS;
const TEXTS = Object.entries(CHARTS);

type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** A value in one line: no quotes, no more digits than anyone reads. */
function said(value: Json | undefined): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'number') return String(Number(value.toFixed(4)));
  if (typeof value !== 'object') return String(value);
  if (Array.isArray(value)) return `[${value.map(said).join(' ')}]`;
  return Object.entries(value)
    .map(([key, one]) => `${key} ${said(one)}`)
    .join(', ');
}

function ask<T extends Json>(name: string, request: unknown): T {
  const question = QUESTIONS[name];
  if (!question) throw new Error(name);
  const result = question.ask(question.request.parse(request));
  if (result instanceof Promise) throw new Error(`${name} answers later`);
  return JSON.parse(JSON.stringify(result.ok ? result.value : { refused: result.error })) as T;
}

type Row = { readonly [key: string]: Json };
type Rows = readonly Row[];

/** Notes as a player reads them: beat, string and fret. */
const played = (notes: Rows): string =>
  notes
    .map(({ beat, beats, string, fret, techniques }) => {
      const how = techniques ? `{${said(techniques)}}` : '';
      return `${said(beat)}+${said(beats)}=${said(string)}:${said(fret)}${how}`;
    })
    .join(' ');

const approve = (name: string, lines: readonly string[]) =>
  expect(`${lines.join('\n')}\n`).toMatchFileSnapshot(`../../../tests/approved/${name}.txt`);

describe('approved answers', () => {
  test('how charts are read', async () => {
    const lines = TEXTS.flatMap(([name, chart]) => {
      const { chords, cadences, ...head } = ask<Row & { chords: Rows; cadences: Rows }>('chart', {
        chart,
      });
      return [`${name}: ${said(head)}`, ...chords.map(said), ...cadences.map(said)];
    });
    await approve('reading', lines);
  });

  test('how loops, vamps and charts of slash chords are read', async () => {
    const lines = LOOP_CHARTS.map((text) => {
      const chart = chartOf(text);
      const reading = readHarmony(chart);
      const contexts = lensContexts(chart, reading);
      const { key, confidence, likeliest } = reading.key;
      const other = likeliest[1]?.key ? ` or ${keyName(likeliest[1].key)}` : '';
      const heard = key ? `${keyName(key)} ${confidence}${other}` : 'no single key';
      const chords = chart.chords.map(({ chord, index }) => {
        const { numeral = null, role = null } = reading.chords[index] ?? {};
        const first = contexts[index] && optionsFor(contexts[index])[0]?.material.name;
        const why = role ? ` (${roleName(role)})` : '';
        return `${chordName(chord)} ${numeral ?? '–'}${why}: ${first ?? '–'}`;
      });
      const name = text.replaceAll('\n', '; ');
      return `${name} → ${heard}, ${reading.idiom.name}; ${[...new Set(chords)].join('; ')}`;
    });
    await approve('loops', lines);
  });

  test('what may be played over each chord, and what it sums to', async () => {
    const lines = TEXTS.flatMap(([name, text]) => {
      const chart = chartOf(text);
      return lensContexts(chart, readHarmony(chart)).flatMap((context, index) => {
        if (!context) return [];
        const options = optionsFor(context, { neighbours: [], preferred: ['mode'] });
        return [
          `${name}, chord ${index + 1}: ${options.length}`,
          ...options
            .slice(0, 14)
            .map(({ lens, material, parts }) =>
              said([rankSum(parts), lens, material.name, { ...parts }]),
            ),
        ];
      });
    });
    await approve('options', lines);
  });

  test('what speaks for an option, in words', async () => {
    const lines = TEXTS.flatMap(([name, chart]) =>
      [0, 2, 3].flatMap((index) => {
        const { options = [] } = ask<{ options?: Rows }>('options', { chart, index });
        return [
          `${name}, chord ${index + 1}`,
          ...options
            .slice(0, 30)
            .map(({ lens, name: called, reason, clashes, fromPrevious }) =>
              said([lens, called, reason, clashes, fromPrevious] as Json),
            ),
        ];
      }),
    );
    await approve('reasons', lines);
  });

  test('plans in every style', async () => {
    const lines = TEXTS.flatMap(([name, text]) => {
      const chart = chartOf(text);
      return STYLES.map((style) => {
        const plan = propose(chart, readHarmony(chart), style);
        return `${name}, ${style}: ${plan.map(({ material, intent }) => `${material.name} (${intent})`).join('; ')}`;
      });
    });
    await approve('styles', lines);
  });

  test('crossings, lanes, chains and the ways into a chord', async () => {
    const lines = TEXTS.flatMap(([name, chart]) => {
      const { crossings, lanes } = ask<{ crossings: Rows; lanes: Row }>('crossings', { chart });
      const { chains } = ask<{ chains: Rows }>('chains', { chart });
      const { ways } = ask<{ ways: Rows }>('into', { chart, index: 1, string: 3, fret: 5 });
      return [
        name,
        ...crossings.map(said),
        ...Object.entries(lanes).map(([lane, stops]) => `${lane}: ${said(stops)}`),
        ...chains.slice(0, 12).map(said),
        ...ways.map(said),
      ];
    });
    await approve('crossings', lines);
  });

  test('routes, with what each part costs', async () => {
    const wishes = [
      {},
      { prefer: ['7'], zone: { low: 5, high: 9 } },
      { prefer: ['3'], zone: { low: 2, high: 5 }, loop: true },
      { pins: [{ index: 1, string: 2, fret: 6 }], alternatives: 5 },
    ];
    const lines = TEXTS.flatMap(([name, chart]) =>
      wishes.flatMap((wish) => [
        `${name}, ${JSON.stringify(wish)}`,
        ...(ask<{ routes?: readonly { cost: number; parts: Row; stops: Rows }[] }>('route', {
          chart,
          ...wish,
        }).routes?.flatMap(({ cost, parts, stops }) => [
          said([cost, parts]),
          stops
            .map(({ string, fret, degree }) => `${said(string)}:${said(fret)} ${said(degree)}`)
            .join(', '),
          said(stops.map(({ sentence }) => sentence ?? null)),
        ]) ?? []),
      ]),
    );
    await approve('routes', lines);
  });

  test('shapes: zones, triads, voicings and homes', async () => {
    const lines = TEXTS.flatMap(([name, chart]) => {
      const { zones } = ask<{ zones: readonly { low: number; high: number; chords: Rows }[] }>(
        'zones',
        { chart },
      );
      return [
        name,
        ...zones.flatMap(({ low, high, chords }) =>
          chords
            .slice(0, 4)
            .map(
              ({ name: called, box, notes }) =>
                `${low}-${high} ${said(called)} ${said(box)} ${played(notes as Rows)}`,
            ),
        ),
        ...['nearest', 'up', 'down'].flatMap((path) => [
          ...(ask<{ steps?: Rows }>('triads', { chart, strings: [2, 3, 4], path }).steps ?? []).map(
            said,
          ),
          ...(
            ask<{ steps?: Rows }>('voicings', {
              chart,
              kind: 'drop-2',
              strings: [1, 2, 3, 4],
              path,
            }).steps ?? []
          ).map(said),
        ]),
      ];
    });
    const homes = ['Cmaj7', 'F#m7b5', 'Bb7'].map((chord) => said(ask('homes', { chord })));
    await approve('shapes', [...lines, ...homes]);
  });

  test('every exercise', async () => {
    const melody = [
      { beat: 0, beats: 2, string: 3, fret: 3 },
      { beat: 2, beats: 1, string: 3, fret: 5 },
      { beat: 4, beats: 3, string: 2, fret: 4 },
      { beat: 8, beats: 2, string: 3, fret: 5 },
    ];
    const lines = (['a tune of ours', 'a waltz'] as const satisfies readonly Named[]).flatMap(
      (name, which) =>
        EXERCISES.flatMap((kind, index) => {
          const subdivision = SUBDIVISIONS[(index + which) % SUBDIVISIONS.length];
          const { title, goal, notes, warnings } = ask<Row & { notes?: Rows }>('exercise', {
            chart: CHARTS[name],
            kind,
            subdivision,
            zone: { low: 3, high: 7 },
            strings: [2, 3, 4],
            melody,
            seed: which + 1,
            pattern: '<1 ~3 5 (2 7)1:q r',
          });
          return [said([title, goal, warnings] as Json), played(notes ?? [])];
        }),
    );
    await approve('exercises', lines);
  });

  test('lines by several seeds', async () => {
    const lines = TEXTS.flatMap(([name, chart], which) =>
      [1, 2].flatMap((seed) => {
        const subdivision = SUBDIVISIONS[(seed + which) % SUBDIVISIONS.length];
        const { notes, targets } = ask<{ notes: Rows; targets?: Rows }>('exercise', {
          chart,
          kind: 'line',
          subdivision,
          zone: { low: 4, high: 8 },
          seed,
        });
        return [`${name}, ${subdivision}, seed ${seed}`, played(notes), said(targets)];
      }),
    );
    await approve('lines', lines);
  });

  test('what the licks of the book say, and where they fit', async () => {
    const charts = Object.values(CHARTS);
    const lines = STARTER_LICKS.flatMap(({ title, chart, notes }, index) => {
      const asked = { chart, notes };
      const { notes: read, landings, heard } = ask<Row & { notes: Rows }>('lick', asked);
      const { fits } = ask<{ fits: Rows }>('fit', { lick: asked, charts });
      const moved = ask<Row>('refinger', {
        notes,
        semitones: (index % 5) - 2,
        zone: { low: 5, high: 9 },
      });
      return [
        title,
        read
          .map(({ degree, role, strong }) => `${said(degree)} ${said(role)}${strong ? '!' : ''}`)
          .join(', '),
        said(landings),
        said(heard),
        said(fits.slice(0, 4)),
        `${said(moved['cost'])} ${said(moved['outOfReach'])} ${played(moved['notes'] as Rows)}`,
      ];
    });
    await approve('licks', lines);
  });

  test('the band in every feel and several metres', async () => {
    const forms = [
      '| Dm7 | G7 | Cmaj7 | A7b9 |',
      'time: 3/4\n| Dm7 | G7 | Cm6 | A7 |',
      'time: 7/8\n| Dm7 G7 | C |',
    ];
    const lines = forms.flatMap((chart) =>
      FEEL_KINDS.flatMap((feel) => {
        const answer = ask<Row & { events?: Rows }>('band', { chart, feel, choruses: 2, seed: 3 });
        const { events = [], ...head } = answer;
        const bars = group(
          events,
          ({ beat, part }) => `${Math.floor(Number(beat) / 4)} ${said(part)}`,
        );
        return [
          `${JSON.stringify(chart)}, ${feel}: ${said(head)}`,
          ...[...bars].map(
            ([bar, own]) =>
              `${bar}: ${own.map(({ beat, beats, midi, drum, velocity }) => `${said(beat)}+${said(beats)} ${said(midi ?? drum)} ${said(velocity)}`).join(', ')}`,
          ),
        ];
      }),
    );
    await approve('band', lines);
  });

  test('drills by seed', async () => {
    const lines = DRILL_KINDS.flatMap((kind) =>
      range(1, 7).map((seed) =>
        said(
          ask('drill', {
            kind,
            seed,
            zone: { low: 4, high: 8 },
            ...(seed % 2 === 0 ? { chart: CHARTS['a tune of ours'] } : {}),
          }),
        ),
      ),
    );
    await approve('drills', lines);
  });

  test('sessions after a history', async () => {
    const charts = TEXTS.slice(0, 3).map(([id, text]) => ({ id, text }));
    const day = (days: number) => new Date(Date.UTC(2026, 2, 30 - days, 18)).toISOString();
    const stint = (
      days: number,
      chart: string,
      exercise: string,
      landed: number,
      tempo: number,
    ) => ({
      at: day(days),
      chart,
      exercise,
      zone: { low: 3, high: 6 },
      tempo,
      minutes: 5,
      asked: 10,
      landed,
    });
    const histories = [
      [],
      [stint(1, 'a blues', 'targets', 4, 90)],
      [0, 2, 4].map((days) => stint(days, 'a blues', 'targets', 10, 100)),
      [
        ...[1, 3, 9].map((days) => stint(days, 'a tune of ours', 'targets', 9, 88)),
        ...[25, 30].map((days) => stint(days, 'a minor tune', 'ascending', 9, 110)),
        ...[1, 2].map((days) => stint(days, 'a minor tune', 'enclosures', 6, 84 - days)),
      ],
    ];
    const lines = histories.flatMap((history, index) =>
      [12, 20, 45].flatMap((minutes) => {
        const { blocks, coverage } = ask<{ blocks: Rows; coverage: Rows }>('next-session', {
          charts,
          history,
          minutes,
          now: day(0),
        });
        const touched = coverage.filter(({ state }) => state !== 'untouched');
        return [`history ${index}, ${minutes} minutes`, ...blocks.map(said), ...touched.map(said)];
      }),
    );
    await approve('sessions', lines);
  });
});
