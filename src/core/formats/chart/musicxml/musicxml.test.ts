import { strFromU8, strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Chart, readChart } from '../../../chart/form';
import { writeKey } from '../../../keys/keys';
import { compressMusicXml } from '../../musicxml/compressed';
import { readMusicXml, readMusicXmlFile } from './read';
import { writeMusicXml } from './write';
import { runs } from '$tests/laws';

function chartOf(text: string): Chart {
  const result = readChart(text);
  if (!result.ok) throw new Error(`${result.problems[0]?.message}\n${text}`);
  return result.chart;
}

function imported(xml: string): { text: string; remarks: readonly string[] } {
  const result = readMusicXml(xml);
  if (!result.ok) throw new Error(result.message);
  return result;
}

/** Everything a chart and a score can both hold. */
function held(chart: Chart) {
  const { title, key, time, tempo, feel, sections } = chart.source;
  const keyAt = (section: number) => sections[section]?.key ?? key;
  return {
    title,
    key: key && writeKey(key),
    time,
    tempo,
    feel,
    chords: chart.chords.map(({ chord, beat, beats }) => `${beat} ${chord.symbol} ${beats}`),
    bars: chart.bars.map(({ section }) => {
      const area = keyAt(section);
      return `${sections[section]?.name ?? ''} ${area ? writeKey(area) : ''}`;
    }),
  };
}

const roundTrip = (text: string) => imported(writeMusicXml(chartOf(text).source)).text;

const FULL = `title: Tom & "Three" <Tides>
key: Bbm
time: 6/8
tempo: 92.5
feel: slow swing
| Bbm(maj7) | % | Eb-7 / / Ab7 | N.C. |
[Verse] x2
| Gbmaj7#11 | F7alt F7(b9,#11) | %% |
[Bridge] key: Db
|: Dbadd9 | C7sus4/Gb | [1] Fø | Bb7b9 :| [2,3] Ab13 :| x3 [4] Db6/9 | DbΔ7 |
[Out]
| Ebm7 | Fm7 | Gb+7 :| x4 | Bb-6 |`;

describe('round trips', () => {
  test('a chart with everything comes back', () => {
    expect(held(chartOf(roundTrip(FULL)))).toEqual(held(chartOf(FULL)));
  });

  test('what comes back goes round again unchanged', () => {
    const once = roundTrip(FULL);
    expect(roundTrip(once)).toBe(once);
  });

  test('every chord spelling comes back as it was written', () => {
    const spellings =
      'C C- Cm Cmin CM7 Cmaj7 CΔ CΔ7 C7 C9 C13 C-7 Cm9 Cm11 Cm6 C6 C69 C6/9 Cm7b5 C-7b5 Cø Cø7 Co ' +
      'Cdim C° C°7 Cdim7 C+ Caug C7#5 C+7 Cmaj7#5 Cmaj7#11 CmMaj7 Cm(maj7) C-Δ7 Csus2 Csus4 ' +
      'C7sus4 C9sus Cadd9 C5 C7b9 C7#9 C7b5 C7#11 C7b13 C7b9b13 C7(b9,#11) C13b9 C7alt Calt C/E ' +
      'C7/Bb F#m7 Bbb7 Gxm';
    for (const symbol of spellings.split(' ')) {
      const [chord] = chartOf(roundTrip(`| ${symbol} |`)).chords;
      expect(chord?.chord.symbol).toBe(symbol);
    }
  });

  test('any shape of bars, shares and repeats comes back', () => {
    const bar = fc
      .array(
        fc.tuple(
          fc.constantFrom('C', 'F#m7b5', 'Bb7alt', 'N.C.', 'Eb6/G'),
          fc.integer({ min: 1, max: 4 }),
        ),
        {
          minLength: 1,
          maxLength: 4,
        },
      )
      .map((slots) => slots.map(([text, shares]) => text + ' /'.repeat(shares - 1)).join(' '));
    const row = fc
      .tuple(
        fc.array(bar, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('| $ |', '|: $ :|', '|: $ :| x3'),
      )
      .map(([bars, frame]) => frame.replace('$', bars.join(' | ')));
    const section = fc
      .tuple(
        fc.constantFrom('[A]', '[B] x2', '[C] key: D'),
        fc.array(row, { minLength: 1, maxLength: 3 }),
      )
      .map(([heading, rows]) => `${heading}\n${rows.join('\n')}`);
    fc.assert(
      fc.property(fc.array(section, { minLength: 1, maxLength: 3 }), (sections) => {
        const text = `key: G\n${sections.join('\n')}`;
        const back = chartOf(roundTrip(text));
        expect(held(back).chords).toEqual(held(chartOf(text)).chords);
        expect(held(back).bars).toEqual(held(chartOf(text)).bars);
      }),
    );
  });

  test('compressed is the same', () => {
    const xml = writeMusicXml(chartOf('title: Packed\n| Cm7 | F7 |').source);
    const result = readMusicXmlFile(compressMusicXml(xml));
    expect(result).toEqual(readMusicXml(xml));
    expect(strFromU8(compressMusicXml(xml).slice(30, 38))).toBe('mimetype');
  });
});

/** As other programs write: other attribute orders, divisions, parts, wordings. */
const FOREIGN = `<?xml version='1.0' encoding='UTF-8'?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 3.1 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
<score-partwise version="3.1">
  <movement-title>Crooked Pier &amp; Co</movement-title>
  <part-list>
    <score-part id="P1"><part-name>Bass</part-name></score-part>
    <score-part id="P2"><part-name>Lead</part-name></score-part>
  </part-list>
  <part id="P1"><measure number="0" implicit="yes"><note><rest/><duration>1</duration></note></measure>
    <measure number="1"/><measure number="2"/><measure number="3"/></part>
  <part id="P2">
    <measure implicit="yes" number="0">
      <attributes><divisions>10080</divisions><key><fifths>-3</fifths><mode>minor</mode></key>
        <time symbol="common"><beats>4</beats><beat-type>4</beat-type></time></attributes>
      <note><pitch><step>G</step><octave>4</octave></pitch><duration>10080</duration></note>
    </measure>
    <measure number="1">
      <barline location="left"><repeat winged="none" direction="forward"/></barline>
      <direction><direction-type><words>Medium Swing</words></direction-type><sound tempo="132"/></direction>
      <harmony print-frame="no"><root><root-step>C</root-step></root><kind text="-7">minor-seventh</kind></harmony>
      <note><pitch><step>C</step><octave>5</octave></pitch><duration>20160</duration></note>
      <note><chord/><pitch><step>E</step><alter>-1</alter><octave>5</octave></pitch><duration>20160</duration></note>
      <harmony><root><root-step>F</root-step></root><kind>dominant</kind>
        <degree><degree-value>9</degree-value><degree-alter>-1</degree-alter><degree-type>add</degree-type></degree></harmony>
      <note><grace/><pitch><step>A</step><octave>4</octave></pitch></note>
      <note><pitch><step>A</step><octave>4</octave></pitch><duration>20160</duration></note>
      <backup><duration>40320</duration></backup>
      <note><rest/><duration>40320</duration><voice>2</voice></note>
    </measure>
    <measure number="2">
      <harmony><root><root-step>B</root-step><root-alter>-1</root-alter></root><kind text="sus">suspended-fourth</kind>
        <bass><bass-step>F</bass-step></bass>
        <degree><degree-value>7</degree-value><degree-alter>0</degree-alter><degree-type>add</degree-type></degree></harmony>
      <note><rest/><duration>40320</duration></note>
      <harmony><offset>-10080</offset><root><root-step>B</root-step></root><kind>diminished</kind></harmony>
    </measure>
    <measure number="3">
      <note><rest/><duration>40320</duration></note>
      <direction><direction-type><words>D.S. al Coda</words></direction-type></direction>
      <barline location="right"><bar-style>light-heavy</bar-style><repeat times="3" direction="backward"/></barline>
    </measure>
  </part>
</score-partwise>`;

describe('scores of other programs', () => {
  test('the part with the chords is read, whatever its order and divisions', () => {
    const { text, remarks } = imported(FOREIGN);
    expect(text).toBe(`title: Crooked Pier & Co
key: Cm
time: 4/4
tempo: 132
feel: Medium Swing
|: C-7 F7b9 | Bb7sus4/F / / Bdim | Bdim :| x3
`);
    expect(remarks.join(' ')).toContain('D.S. al Coda');
    expect(remarks.join(' ')).toContain('pick-up');
  });

  test('a score by measures is read like one by parts', () => {
    const timewise = `<score-timewise><measure number="1"><part id="P1"><attributes><divisions>2</divisions>
      <time><beats>3</beats><beat-type>4</beat-type></time></attributes><harmony><root><root-step>D</root-step>
      </root><kind>major-seventh</kind></harmony></part></measure></score-timewise>`;
    expect(imported(timewise).text).toBe('time: 3/4\n| Dmaj7 |\n');
  });

  test('repeats that do not fit together are told of, and the bars kept', () => {
    const chord = '<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony>';
    const open = '<barline location="left"><repeat direction="forward"/></barline>';
    const second = '<barline location="left"><ending number="2" type="start"/></barline>';
    const score = (inner: string) =>
      `<score-partwise><part id="P1">${inner}</part></score-partwise>`;
    const never = imported(score(`<measure>${open}${chord}</measure><measure/>`));
    expect(never.text).toBe('time: 4/4\n| C | C |\n');
    const lost = imported(score(`<measure>${chord}</measure><measure>${second}</measure>`));
    expect(lost.text).toBe('time: 4/4\n| C | C |\n');
    expect(lost.remarks.join(' ')).toContain('do not fit together');
  });

  test('a heading inside a repeat does not part it', () => {
    const measure = (inner: string) =>
      `<measure>${inner}<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony></measure>`;
    const rehearsal = (name: string) =>
      `<direction><direction-type><rehearsal>${name}</rehearsal></direction-type></direction>`;
    const close = '<barline location="right"><repeat direction="backward"/></barline>';
    const { text, remarks } = imported(
      `<score-partwise><part id="a">${measure(rehearsal('A'))}${measure(rehearsal('B') + close)}${measure(rehearsal('12'))}</part></score-partwise>`,
    );
    expect(text).toBe('time: 4/4\n[A]\n|: C | C :|\n[Part 12]\n| C |\n');
    expect(remarks.join(' ')).toContain('“B”');
  });
});

describe('bad files', () => {
  const refusal = (text: string) => {
    const result = readMusicXml(text);
    return result.ok ? '' : result.message;
  };

  test('entities, other XML, broken XML and empty scores are refused in a sentence', () => {
    const bomb =
      '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><score-partwise>&b;</score-partwise>';
    expect(refusal(bomb)).toContain('entities');
    expect(refusal('<html></html>')).toContain('html');
    expect(refusal('<score-partwise><part>')).toContain('well-formed');
    expect(refusal('not xml at all')).not.toBe('');
    expect(refusal('')).not.toBe('');
    expect(refusal('<score-partwise><part id="P1"/></score-partwise>')).toContain('no measures');
    const silent = '<score-partwise><part id="P1"><measure number="1"/></part></score-partwise>';
    expect(refusal(silent)).toContain('no chord symbols');
    const deep = `${'<a>'.repeat(80)}${'</a>'.repeat(80)}`;
    expect(refusal(deep)).toContain('deep');
  });

  test('zip bombs and damaged zips are refused', () => {
    const bomb = zipSync({ 'score.xml': new Uint8Array(20_000_000) });
    expect(readMusicXmlFile(bomb)).toMatchObject({ ok: false });
    const empty = zipSync({ 'readme.txt': strToU8('hello') });
    expect(readMusicXmlFile(empty)).toMatchObject({ ok: false });
    const whole = compressMusicXml(writeMusicXml(chartOf('| C |').source));
    expect(readMusicXmlFile(whole.slice(0, whole.length - 60))).toMatchObject({ ok: false });
  });

  test('no text makes it throw', () => {
    fc.assert(
      fc.property(fc.string(), fc.nat(FOREIGN.length), (noise, place) => {
        const spoiled = FOREIGN.slice(0, place) + noise + FOREIGN.slice(place + noise.length);
        const result = readMusicXml(spoiled);
        if (result.ok) expect(() => chartOf(result.text)).not.toThrow();
        else expect(result.message.length).toBeGreaterThan(10);
      }),
      runs(150),
    );
  });
});
