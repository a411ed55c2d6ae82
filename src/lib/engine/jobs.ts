/** What the server and the engine's threads say to each other. */

/** What a thread says first, when it is loaded. */
export const READY = 'ready';

export interface EngineJob {
  readonly question: string;
  /** Has passed the question's schema. */
  readonly request: unknown;
}

export type EngineReply =
  | { readonly kind: 'answered'; readonly status: 200 | 422; readonly body: string }
  | { readonly kind: 'failed'; readonly reason: string };
