<script lang="ts">
  import Share from '@lucide/svelte/icons/share';
  import { DropdownMenu } from 'bits-ui';
  import { message, warn } from '$lib/ui/messages.svelte';
  import { chartFile, type ChartFormat } from '$lib/formats/charts';
  import { getStudy } from '$lib/study/study.svelte';
  import { download } from '$lib/ui/download';

  const study = getStudy();

  /** It is there because it was asked for. */
  let open = $state(true);

  async function save(kind: ChartFormat) {
    const { text, plan } = study.document;
    const file = await chartFile({ text, plan, view: study.view }, kind);
    if (file) download(file);
    else warn('Mend the text first: a score needs a chart that can be read.');
  }

  async function copy() {
    try {
      await navigator.clipboard.writeText(study.document.text);
      message('The chart is copied as text.');
    } catch {
      warn('The browser did not let Corvel copy.');
    }
  }

  /** Once the menu is gone from the page. */
  const print = () => setTimeout(() => window.print(), 100);

  const CHOICES = [
    ['Print', print],
    ['Copy as text', copy],
    ['Chart text', () => save('text')],
    ['Chart with its plan, JSON', () => save('json')],
    ['MusicXML', () => save('musicxml')],
    ['MusicXML, compressed', () => save('compressed')],
  ] as const;
</script>

<DropdownMenu.Root bind:open>
  <DropdownMenu.Trigger class="button-quiet text-sm" title="Export">
    <Share size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Export</span>
  </DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      align="end"
      class="z-40 min-w-44 rounded border border-line bg-sheet p-1 shadow-sheet"
    >
      {#each CHOICES as [name, run] (name)}
        <DropdownMenu.Item
          class="flex h-9 cursor-pointer items-center rounded px-3 outline-none data-highlighted:bg-line"
          onSelect={() => void run()}
        >
          {name}
        </DropdownMenu.Item>
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
