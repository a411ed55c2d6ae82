/** Short messages over the page. What draws them is loaded with the first. */
import type { ExternalToast } from 'svelte-sonner';

let shown = $state(false);

/** Whether a message was ever shown, and the page must have where to draw it. */
export const messagesShown = (): boolean => shown;

type Kind = 'message' | 'info' | 'error';

async function show(kind: Kind, text: string, options?: ExternalToast): Promise<void> {
  shown = true;
  const { toast } = await import('svelte-sonner');
  toast[kind](text, options);
}

export const message = (text: string, options?: ExternalToast): void =>
  void show('message', text, options);
/** Something to know, that needs no answer. */
export const inform = (text: string): void => void show('info', text);
/** Something that did not succeed, in a sentence. */
export const warn = (text: string): void => void show('error', text);
