import { test } from 'vitest';
import { linesOf, playedOver } from '$tests/lines';
import { LINE_STYLES } from './styles';
import { degreeOver } from '../chords/over';
import { degreeName } from '../notes/degrees';
import { noteName } from '../notes/notes';
import { chordName } from '../chords/chords';
import { range, at } from '../lists';
import { STANDARD_NECK as NECK, pitchAt } from '../neck/neck';
export function show(l: ReturnType<typeof playedOver>) {
  const { chart, exercise: { passage, line } } = l; const bar = chart.source.time.beats;
  const out = [line!.words.join('; ')];
  for (const b of range(0, chart.bars.length)) {
    const ns = passage.notes.filter(n => n.beat >= b*bar-1e-6 && n.beat < (b+1)*bar-1e-6);
    const cs = chart.chords.filter(c => c.bar === b+1 || (c.beat>=b*bar && c.beat<(b+1)*bar)).map(c=>chordName(c.chord));
    out.push(`${b+1} ${cs.join(' ')}: ` + ns.map(n => { const c = chart.chords[n.chord ?? 0]!; return `${+(n.beat-b*bar).toFixed(2)}${n.part==='target'?'*':''}${noteName(n.note)}=${degreeName(degreeOver(c.chord,n.note))}[${n.string}/${n.fret}]${n.techniques.map(t=>t.kind[0]+('by' in t?t.by:'')).join('')}(${+n.beats.toFixed(2)})`; }).join(' '));
  }
  return out.join('\n');
}
test('show', () => {
  const style = (process.env.STYLE ?? 'bop') as any;
  for (const l of linesOf(style, 4, 'eighths').slice(0, Number(process.env.N ?? 2))) console.log(show(l));
});
test('hands', () => {
  if (!process.env.H) return;
  let stretch=0, skip=0, notes=0, wide=0;
  for (const style of LINE_STYLES) for (const l of linesOf(style, 24)) {
    const ns = l.exercise.passage.notes; notes += ns.length;
    const tempo = 120;
    ns.forEach((n,i) => { for (let j=i+1;j<ns.length && ns[j]!.beat-n.beat<1-1e-6;j++){ const f = n.fret&&ns[j]!.fret?Math.abs(n.fret-ns[j]!.fret):0; if(f>5){stretch++; } }
      const nx=ns[i+1]; if(nx){ const dt=(nx.beat-n.beat)*60/tempo; if(Math.abs(nx.string-n.string)>=2 && dt<0.25-1e-6) {skip++; if(Math.abs(nx.string-n.string)>=3) wide++;} } });
  }
  console.log({notes, stretch, skip, wide});
});
