import { error } from '@sveltejs/kit';
import { Marked } from 'marked';
import { anchorOf } from '$lib/ui/anchors';
import manual from '../../../../docs/manual.md?raw';
import serving from '../../../../docs/serving.md?raw';
import theory from '../../../../docs/theory.md?raw';
import type { PageServerLoad } from './$types';

const PAGES: Readonly<Record<string, string>> = { manual, serving, theory };

const marked = new Marked({
  renderer: {
    heading({ tokens, depth, text }) {
      return `<h${depth} id="${anchorOf(text)}">${this.parser.parseInline(tokens)}</h${depth}>\n`;
    },
    // A link to another of these pages is one of the app's own.
    link({ href, text }) {
      return `<a href="${href.replace(/^(manual|theory|serving)\.md/u, '/docs/$1')}">${text}</a>`;
    },
  },
});

export const load: PageServerLoad = async ({ params }) => {
  const text = PAGES[params.page];
  if (text === undefined) error(404, 'There is nothing at this address.');
  return { title: /^# Corvel: (.*)$/mu.exec(text)?.[1] ?? '', html: await marked.parse(text) };
};
