/** Edits kept in this browser until the server has acknowledged them. */
import { z } from 'zod';
import type { StoredText } from './api';

const draftSchema = z.object({ text: z.string(), plan: z.string(), revision: z.int() });

const keyOf = (id: string) => `corvel:draft:${id}`;

export function keepDraft(id: string, draft: StoredText): void {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(draft));
  } catch {
    // Storage is full or forbidden: the copy in memory still goes to the server.
  }
}

export function findDraft(id: string): StoredText | null {
  try {
    const parsed = draftSchema.safeParse(JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null'));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

export function dropDraft(id: string): void {
  try {
    localStorage.removeItem(keyOf(id));
  } catch {
    // Nothing was kept.
  }
}
