/** The player's settings on a page: changed at once, kept on the server, waiting here while it is away. */
import { onDestroy } from 'svelte';
import { acknowledgedAt, onKept } from '$lib/kept/acknowledged';
import { send, waitingAt } from '$lib/kept/outbox.svelte';
import { warn } from '$lib/ui/messages.svelte';
import { nameAs } from '$lib/ui/names.svelte';
import { type Settings, settingsSchema, type StoredSettings } from './settings';

const PATH = '/api/settings';

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

  return {
    get current() {
      return settings;
    },
    /** Changes some of the settings. */
    change(changed: Partial<Settings>) {
      settings = { ...settings, ...changed };
      name();
      void send({
        ...{ path: PATH, fields: settings, revision, base: stored.settings },
        ...{ what: 'A setting', remember: true },
      }).then((sent) => {
        if (sent.kind === 'refused' && sent.message !== '') warn(sent.message);
      });
    },
  };
}

export type SettingsStore = ReturnType<typeof createSettings>;
