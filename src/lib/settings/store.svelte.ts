/** The player's settings on a page: changed at once, kept on the server. */
import { warn } from '$lib/ui/messages.svelte';
import * as z from 'zod/mini';
import { type Settings, settingsSchema, type StoredSettings } from './settings';

const savedAnswer = z.object({ revision: z.int() });
const conflictAnswer = z.object({
  current: z.object({ settings: settingsSchema, revision: z.int() }),
});

export function createSettings(stored: StoredSettings) {
  let settings = $state.raw(stored.settings);
  let revision = stored.revision;
  let saving: Promise<void> = Promise.resolve();

  async function save(): Promise<void> {
    try {
      const response = await fetch('/api/settings', {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ settings, revision }),
      });
      const body: unknown = await response.json();
      if (response.ok) revision = savedAnswer.parse(body).revision;
      else if (response.status === 409) {
        ({ settings, revision } = conflictAnswer.parse(body).current);
        warn('The settings were changed elsewhere; here is how they stand now.');
      } else warn('The settings were not saved.');
    } catch {
      warn('The server does not answer. The settings hold on this page only.');
    }
  }

  return {
    get current() {
      return settings;
    },
    /** Changes some of the settings; saved one after another, so that none overtakes another. */
    change(changed: Partial<Settings>) {
      settings = { ...settings, ...changed };
      saving = saving.then(save);
    },
  };
}

export type SettingsStore = ReturnType<typeof createSettings>;
