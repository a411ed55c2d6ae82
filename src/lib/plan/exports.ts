/** What the menu of Plan offers of the chart as files and on paper. */
import { type MenuItem, paperItems } from '$lib/frame/menu';
import type { ChartFormat } from '$lib/formats/charts';
import type { PictureKind } from '$lib/paper/save';
import type { Study } from '$lib/study/study.svelte';
import { showSymbol } from '$lib/ui/glyphs';
import { download } from '$lib/ui/download';
import { message, warn } from '$lib/ui/messages.svelte';

export function exportItems(study: Study): readonly MenuItem[] {
  async function save(kind: ChartFormat) {
    const { text, plan } = study.document;
    const { chartFile } = await import('$lib/formats/charts');
    const file = await chartFile({ text, plan, view: study.view }, kind);
    if (file) download(file);
    else warn('Correct the text first: a score needs a chart that can be read.');
  }

  async function copy() {
    try {
      await navigator.clipboard.writeText(study.document.text);
      message('The chart is copied as text.');
    } catch {
      warn('The browser did not let Corvel copy.');
    }
  }

  /** The change as it stands on the screen: its sentence, the neck, and what colours and rings mean. */
  async function picture(kind: PictureKind) {
    const parts = ['[data-change]', '[data-neck]'].flatMap(
      (selector) => document.querySelector(selector) ?? [],
    );
    const legend = document.createElement('p');
    legend.className = 'mt-2 text-sm text-ink-soft';
    legend.textContent = `${study.title}, bar ${study.now?.bar ?? 1}. Filled: the chord now. Ringed: the chord next.`;
    const { savePartsPicture } = await import('$lib/paper/save');
    const { now, next } = study;
    const change = [now, next].map((one) => one && showSymbol(one.chord.symbol)).join(' to ');
    await savePartsPicture(`${study.title}, ${change}`, kind, [...parts, legend]);
  }

  return [
    ...paperItems(() => `${study.title}, plan`),
    { name: 'Save this change as a picture (PNG)', run: () => void picture('png') },
    { name: 'Save this change as a picture (SVG)', run: () => void picture('svg') },
    { name: 'Copy as text', run: () => void copy() },
    { name: 'Save the text', run: () => void save('text') },
    { name: 'Save chart and plan (JSON)', run: () => void save('json') },
    { name: 'Save as MusicXML', run: () => void save('musicxml') },
    { name: 'Save as MusicXML, compressed', run: () => void save('compressed') },
    { name: 'Save as ABC', run: () => void save('abc') },
    { name: 'Save as ChordPro', run: () => void save('chordpro') },
  ];
}
