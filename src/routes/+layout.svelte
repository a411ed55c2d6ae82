<script lang="ts">
  import '../app.css';
  import AudioLines from '@lucide/svelte/icons/audio-lines';
  import CalendarDays from '@lucide/svelte/icons/calendar-days';
  import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
  import BookOpen from '@lucide/svelte/icons/book-open';
  import Guitar from '@lucide/svelte/icons/guitar';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import { mode, ModeWatcher } from 'mode-watcher';
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import WaitingMark from '$lib/kept/WaitingMark.svelte';
  import { keepLists } from '$lib/live/lists';
  import { listen } from '$lib/live/live';
  import TodayMark from '$lib/log/TodayMark.svelte';
  import { message, messagesShown } from '$lib/ui/messages.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import type { LayoutProps } from './$types';

  let { children, data }: LayoutProps = $props();

  const SCREENS = [
    { name: 'Book', href: '/', icon: BookOpen, matches: /^\/$/u },
    { name: 'Plan', href: '/plan', icon: Guitar, matches: /^\/plan/u },
    { name: 'Licks', href: '/licks', icon: AudioLines, matches: /^\/licks/u },
    { name: 'Drills', href: '/drills', icon: CircleHelp, matches: /^\/drills/u },
    { name: 'Log', href: '/log', icon: CalendarDays, matches: /^\/log/u },
  ] as const;

  // The screens of a chart have the frame's own head.
  const shell = $derived(!/^\/(?:unlock|recover|plan\/.)/u.test(page.url.pathname));

  // The passcode is asked first.
  onMount(() => {
    if (page.url.pathname.startsWith('/unlock')) return;
    const open = () => (page.data as { readonly open?: { readonly id: string } | null }).open?.id;
    const ends = [listen(data.told), keepLists(() => open() ?? null)];
    return () => {
      for (const end of ends) end();
    };
  });

  // Says to assistive tools and tests that the page now answers to keys.
  onMount(() => {
    document.documentElement.dataset['ready'] ??= 'page';
    // A part that comes when needed did not come.
    const partMissing = () => {
      message('A part of this page could not be loaded.', {
        duration: Infinity,
        action: { label: 'Try again', onClick: () => location.reload() },
      });
    };
    window.addEventListener('vite:preloadError', partMissing);
    return () => {
      window.removeEventListener('vite:preloadError', partMissing);
    };
  });
</script>

<ModeWatcher disableHeadScriptInjection />
{#if messagesShown()}
  {#await import('svelte-sonner') then { Toaster }}
    <Toaster position="bottom-right" theme={mode.current ?? 'light'} />
  {/await}
{/if}

{#if shell}
  <a
    href="#main"
    class="button-strong absolute top-1 left-1 z-50 -translate-y-16 focus:translate-y-0"
  >
    Skip to the page
  </a>
  <header
    class="flex min-h-11 flex-wrap items-center gap-x-1 border-b border-line px-4 max-sm:gap-x-0 max-sm:px-2 pointer-coarse:min-h-13 print:hidden"
  >
    <a href="/" class="heading mr-4 text-lg max-sm:sr-only" aria-label="Corvel">Corvel</a>
    <nav aria-label="Screens" class="flex self-stretch">
      {#each SCREENS as { name, href, icon: Icon, matches } (name)}
        {@const here = matches.test(page.url.pathname)}
        <a
          {href}
          aria-current={here ? 'page' : undefined}
          class="flex items-center gap-1.5 border-b-2 px-3 max-sm:px-2 max-[22rem]:px-1.5 {here
            ? 'border-ink text-ink'
            : 'border-transparent text-ink-soft hover:text-ink'}"
        >
          <Icon size={16} class={here ? 'max-sm:hidden' : ''} aria-hidden="true" /><span
            class={here ? '' : 'max-sm:sr-only'}>{name}</span
          >
        </a>
      {/each}
    </nav>
    <div class="ml-auto flex"><TodayMark /></div>
    <a href="/settings" class="button-quiet text-sm" title="Settings">
      <SlidersHorizontal size={16} aria-hidden="true" /><span class="max-sm:sr-only">Settings</span>
    </a>
    <ThemeButton />
  </header>
{/if}

<div id="main">{@render children()}</div>
<WaitingMark />
