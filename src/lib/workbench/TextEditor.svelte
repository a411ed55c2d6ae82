<!-- The chart as text, checked while it is typed. Undo and redo belong to the whole document. -->
<script lang="ts">
  import { defaultKeymap } from '@codemirror/commands';
  import { type Diagnostic, forceLinting, linter, lintKeymap } from '@codemirror/lint';
  import { EditorState } from '@codemirror/state';
  import { drawSelection, EditorView, keymap, lineNumbers } from '@codemirror/view';
  import { onMount } from 'svelte';
  import type { Problem } from '$core/chart/syntax';

  interface Props {
    readonly text: string;
    readonly problems: readonly Problem[];
    readonly onedit: (text: string) => void;
    readonly onundo: () => void;
    readonly onredo: () => void;
  }

  let { text, problems, onedit, onundo, onredo }: Props = $props();

  let host = $state<HTMLDivElement>();
  let view = $state.raw<EditorView | null>(null);

  function diagnostics(view: EditorView): readonly Diagnostic[] {
    const end = view.state.doc.length;
    return problems.map(({ from, to, message }) => ({
      from: Math.min(from, end),
      to: Math.min(Math.max(to, from), end),
      severity: 'error',
      message,
    }));
  }

  const theme = EditorView.theme({
    '&': { height: '100%', fontSize: '15px' },
    '.cm-scroller': { fontFamily: 'var(--font-sans)', lineHeight: '1.6' },
    '.cm-content': { caretColor: 'var(--ink)' },
    '.cm-cursor': { borderLeftColor: 'var(--ink)' },
    '.cm-gutters': { background: 'transparent', border: 'none', color: 'var(--ink-soft)' },
    '.cm-tooltip': {
      background: 'var(--sheet)',
      color: 'var(--ink)',
      border: '1px solid var(--line-strong)',
    },
    '.cm-diagnostic-error': { borderLeftColor: 'var(--now)' },
    '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': {
      background: 'var(--line) !important',
    },
  });

  onMount(() => {
    const editor = new EditorView({
      parent: host as HTMLDivElement,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          drawSelection(),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({
            'aria-label': 'Chart text',
            'aria-describedby': 'chart-problems',
          }),
          keymap.of([
            { key: 'Mod-z', run: () => (onundo(), true) },
            { key: 'Mod-y', run: () => (onredo(), true) },
            { key: 'Mod-Shift-z', run: () => (onredo(), true) },
            ...lintKeymap,
            ...defaultKeymap,
          ]),
          linter((current) => diagnostics(current), { delay: 0 }),
          EditorView.updateListener.of((update) => {
            const typed = update.state.doc.toString();
            if (update.docChanged && typed !== text) onedit(typed);
          }),
          theme,
        ],
      }),
    });
    // A long chart is scrolled with the keys as well.
    editor.scrollDOM.tabIndex = 0;
    view = editor;
    editor.focus();
    return () => {
      editor.destroy();
    };
  });

  /** Undo, redo and edits made elsewhere: replace only what differs, so the caret stays put. */
  $effect(() => {
    const shown = view?.state.doc.toString();
    if (!view || shown === undefined || shown === text) return;
    let from = 0;
    while (from < shown.length && from < text.length && shown[from] === text[from]) from += 1;
    let tail = 0;
    const most = Math.min(shown.length, text.length) - from;
    while (tail < most && shown.at(-1 - tail) === text.at(-1 - tail)) tail += 1;
    view.dispatch({
      changes: { from, to: shown.length - tail, insert: text.slice(from, text.length - tail) },
    });
  });

  $effect(() => {
    void problems;
    if (view) forceLinting(view);
  });
</script>

<div
  bind:this={host}
  class="min-h-0 flex-1 overflow-hidden rounded-sm border border-line bg-sheet"
></div>
