<script lang="ts">
  import type { PageProps } from './$types';

  let { form }: PageProps = $props();
</script>

<svelte:head><title>Passcode · Corvel</title></svelte:head>

<main class="mx-auto max-w-sm p-8">
  <h1 class="heading mb-4 text-2xl">Corvel is locked</h1>
  <form method="POST" class="flex flex-col gap-3">
    <label class="flex flex-col gap-1">
      Passcode
      <input
        class="field"
        type="password"
        name="passcode"
        autocomplete="current-password"
        required
      />
    </label>
    {#if form?.message}<p role="alert" class="text-now-text">{form.message}</p>{/if}
    <button class="button-strong">Open</button>
  </form>
</main>
