/** The player's settings on a page: changed at once, kept on the server, waiting here while it is away. */
import { onDestroy, onMount } from 'svelte';
import * as z from 'zod/mini';
import { acknowledge, acknowledgedAt, announce, onKept } from '$lib/kept/acknowledged';
import { send, waitingAt } from '$lib/kept/outbox.svelte';
import { onMessage, onReturn } from '$lib/live/live';
import { warn } from '$lib/ui/messages.svelte';
import { callServer } from '$lib/ui/server';
import { nameAs } from '$lib/ui/names.svelte';
import { type Settings, settingsSchema, type StoredSettings } from './settings';

const PATH = '/api/settings';
const storedAnswer = z.extend(settingsSchema, { revision: z.int() });

/** As they stand by what this browser knows: what waits here, or was acknowledged after the page was made. */
function known({ settings, revision }: StoredSettings): Settings {
  const acknowledged = acknowledgedAt(PATH);
  const newer = acknowledged && acknowledged.revision > revision ? acknowledged.fields : null;
  const fields = waitingAt(PATH)?.fields ?? newer;
  const read = fields ? settingsSchema.safeParse(fields) : null;
  return read?.success ? read.data : settings;
}

export function createSettings(stored: StoredSettings) {
  let settings = $state.raw(known(stored));
  const { revision } = stored;
  const name = () => nameAs({ notes: settings.noteNames, numerals: settings.numerals });
  name();

  // What was changed elsewhere as well was put together with what was changed here.
  const look = () => {
    settings = known({ settings, revision });
    name();
  };
  onDestroy(onKept(PATH, look));

  // Changed on another device: taken up as the server has it.
  async function follow(there: number | null) {
    if (there !== null && there <= (acknowledgedAt(PATH)?.revision ?? revision)) return;
    const response = await callServer(PATH, 'GET');
    if (!(response instanceof Response) || !response.ok) return;
    const read = storedAnswer.safeParse(await response.json());
    if (!read.success) return;
    const { revision: at, ...fields } = read.data;
    if (at <= (acknowledgedAt(PATH)?.revision ?? revision)) return;
    acknowledge(PATH, { fields, revision: at }, true);
    announce(PATH);
  }
  onMount(() => {
    const ends = [
      onMessage('changed', ({ path, revision: there }) => {
        if (path === PATH) void follow(there);
      }),
      onReturn(() => void follow(null)),
    ];
    return () => {
      for (const end of ends) end();
    };
  });

  return {
    get current() {
      return settings;
    },
    /** Changes some of the settings. */
    change(changed: Partial<Settings>) {
      settings = { ...settings, ...changed };
      name();
      void send({
        path: PATH,
        fields: settings,
        revision,
        base: stored.settings,
        what: 'A setting',
        remember: true,
      }).then((sent) => {
        if (sent.kind === 'refused' && sent.message !== '') warn(sent.message);
      });
    },
  };
}

export type SettingsStore = ReturnType<typeof createSettings>;
