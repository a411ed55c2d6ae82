/** What readers and writers of files answer. */
import type { Passage } from '../phrases/passage';

/** Why something was not read or written. */
export interface Refusal {
  readonly ok: false;
  /** A sentence for the player. */
  readonly message: string;
}

/** A passage read from a file, with what could not be taken over, in sentences. */
export type PassageResult =
  { readonly ok: true; readonly passage: Passage; readonly remarks: readonly string[] } | Refusal;

/** A file's content, with what of the passage it could not hold, in sentences. */
export interface Written<T extends string | Uint8Array = string | Uint8Array> {
  readonly content: T;
  readonly remarks: readonly string[];
}

/** A refusal with its sentence. */
export const refused = (message: string): Refusal => ({ ok: false, message });

/** Notes of the largest passage read. */
export const NOTE_LIMIT = 20_000;
