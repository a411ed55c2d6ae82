<!-- Makes the study of a chart for the screens inside, and keeps it when they are left. -->
<script lang="ts">
  import { onMount, type Snippet, untrack } from 'svelte';
  import { afterNavigate } from '$app/navigation';
  import { page } from '$app/state';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { onMessage, onReturn } from '$lib/live/live';
  import { message } from '$lib/ui/messages.svelte';
  import { markOpened } from './api';
  import { createDocument } from './document.svelte';
  import type { ChartDocument } from './messages';
  import { readPlace } from './place';
  import { createStudy, setStudy } from './study.svelte';

  interface Props {
    readonly stored: ChartDocument;
    readonly settings: StoredSettings;
    readonly children: Snippet;
  }

  let { stored, settings, children }: Props = $props();

  const study = setStudy(
    untrack(() =>
      createStudy({
        id: stored.id,
        document: createDocument(stored.id, stored),
        settings: createSettings(settings),
        view: stored.view,
        place: readPlace(page.url),
      }),
    ),
  );

  onMount(() => {
    void study.document.resume();
    void markOpened(study.id);
    const follow = (revision: number | null) =>
      void study.document.follow(revision).then((changed) => {
        if (changed) message('Changed on another device.');
      });
    const ends = [
      onMessage('changed', ({ path, revision }) => {
        if (path === `/api/charts/${study.id}`) follow(revision);
      }),
      onReturn(() => follow(null)),
    ];
    return () => {
      for (const end of ends) end();
      study.leave();
    };
  });

  // A link within the chart may lead to another place of it.
  afterNavigate(({ from, to }) => {
    if (!from || !to?.url.searchParams.has('at')) return;
    const { index, zone } = readPlace(to.url);
    study.go(index);
    if (zone) study.dragZone(zone);
  });
</script>

<svelte:window onpagehide={study.leave} />

{@render children()}
