/** What the menu of Plan offers of the chart as files and on paper. */
import { type MenuItem, PRINT } from '$lib/frame/menu';
import type { ChartFormat } from '$lib/formats/charts';
import type { Study } from '$lib/study/study.svelte';
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

  return [
    PRINT,
    { name: 'Copy as text', run: () => void copy() },
    { name: 'Save the text', run: () => void save('text') },
    { name: 'Save chart and plan (JSON)', run: () => void save('json') },
    { name: 'Save as MusicXML', run: () => void save('musicxml') },
    { name: 'Save as MusicXML, compressed', run: () => void save('compressed') },
    { name: 'Save as ABC', run: () => void save('abc') },
    { name: 'Save as ChordPro', run: () => void save('chordpro') },
  ];
}
