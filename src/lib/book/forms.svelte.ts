/** The forms of charts, drawn small: those that come with the page, and those that are asked for when seen. */
import { untrack } from 'svelte';
import type { FormSketch } from '$core/harmony/sketch';
import { reached } from '$lib/ui/server';

export type Forms = Readonly<Record<string, FormSketch | null>>;

/** Milliseconds that what comes into sight is gathered. */
const GATHERED = 80;
/** Most that are asked for at once. */
const MOST = 100;

export function createForms(first: () => Promise<Forms>) {
  let known = $state.raw<Forms>({});
  let wanted: readonly string[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;

  const ready = $derived(first());
  $effect(() => {
    void ready.then((read) => (known = { ...untrack(() => known), ...read }));
  });

  async function ask() {
    await ready;
    const ids = wanted.filter((id) => !(id in known)).slice(0, MOST);
    if (ids.length === 0) return;
    const response = await reached(`/api/charts/forms?ids=${ids.join(',')}`, 'GET');
    if (response?.ok) known = { ...known, ...((await response.json()) as Forms) };
  }

  return {
    of: (id: string): FormSketch | null => known[id] ?? null,
    /** Says which charts are in sight. */
    want(charts: readonly { readonly id: string }[]) {
      wanted = charts.map(({ id }) => id);
      clearTimeout(timer);
      timer = setTimeout(() => void ask(), GATHERED);
    },
  };
}
