<!-- The clock of a block of a session: how long it has been played, and where it leads on to. -->
<script lang="ts">
  import { clockName } from '$lib/ui/amounts';

  interface Props {
    readonly minutes: number;
    readonly playing: boolean;
    /** Where the session goes on. */
    readonly onward: string;
  }

  let { minutes, playing, onward }: Props = $props();

  let seconds = $state(0);
  $effect(() => {
    if (!playing) return;
    let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now();
      seconds += (now - last) / 1_000;
      last = now;
    }, 1_000);
    return () => clearInterval(timer);
  });

  const over = $derived(seconds >= 60 * minutes);
</script>

<p class="tabular-nums {over ? 'font-semibold' : 'text-ink-soft'}" data-block-clock>
  {clockName(seconds)} of {clockName(60 * minutes)}
  <a class="ml-1 underline" href={onward} title="The next block of the session (N)">
    {over ? 'This block is over: the next' : 'Next block'}
  </a>
</p>
