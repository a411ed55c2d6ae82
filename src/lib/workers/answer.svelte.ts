/** The answer to a request that changes: solved anew when it does, never shown when it is stale. */
import {
  type AnswerOf,
  CancelledError,
  type Computation,
  createCaller,
  type RequestOf,
} from './compute';

/** Below this many milliseconds no progress is shown: it would only flicker. */
const PATIENCE = 150;

export function createAnswer<K extends Computation>(
  name: K,
  /** Null where nothing is asked. */
  request: () => RequestOf<K> | null,
) {
  const caller = createCaller(name);
  let answer = $state.raw<AnswerOf<K> | null>(null);
  let answered = $state.raw<RequestOf<K> | null>(null);
  let progress = $state<number | null>(null);
  let failure = $state<string | null>(null);
  const asked = $derived(request());
  /** Once its screen is left nothing is asked any more, and nobody may look what was. */
  let left = false;

  async function solve(now: RequestOf<K>) {
    const patience = setTimeout(() => (progress = 0), PATIENCE);
    try {
      const found = await caller.ask(now, (share) => {
        if (progress !== null) progress = share;
      });
      if (left || now !== asked) return;
      answer = found;
      answered = now;
      failure = null;
    } catch (error) {
      if (error instanceof CancelledError) return;
      failure = 'This could not be worked out. Change something, or load the page anew.';
    } finally {
      clearTimeout(patience);
      if (!left && now === asked) progress = null;
    }
  }

  $effect(() => {
    if (asked) void solve(asked);
    else caller.cancel();
  });
  $effect(() => () => {
    left = true;
    caller.cancel();
  });

  return {
    /** The newest answer; of an older request until {@link settled}. */
    get value() {
      return answer;
    },
    /** Whether what is shown answers what is asked now. */
    get settled() {
      return asked === null || answered === asked;
    },
    /** Share of the work done; null when nothing is under way for long. */
    get progress() {
      return progress;
    },
    /** What went wrong, as a sentence; null when nothing did. */
    get failure() {
      return failure;
    },
    cancel() {
      caller.cancel();
      progress = null;
    },
  };
}
