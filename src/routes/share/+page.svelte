<script lang="ts">
  import Keys from '$lib/frame/Keys.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Another device · Corvel</title></svelte:head>

<Keys actions={{}} />
<main class="mx-auto grid max-w-2xl gap-4 p-4">
  <h1 class="heading text-2xl">Corvel on another device</h1>
  {#if data.sharing}
    {@const { address, code, fingerprint, passcode } = data.sharing}
    <img class="w-56 rounded" src={code} alt="QR code of {address}" />
    <ol class="grid list-decimal gap-2 pl-5">
      <li>
        On the tablet or phone, in the same network, scan the code or open <code>{address}</code>.
      </li>
      <li>
        The browser warns of the certificate once. Compare the SHA-256 fingerprint of “Corvel on
        this network”, then trust it:
        <code class="block text-sm break-all">{fingerprint}</code>
      </li>
      <li>Type the passcode: <strong>{passcode}</strong></li>
      <li>
        To use the microphone and the pages without this machine, <a
          class="underline"
          href="/share/certificate"
          data-sveltekit-reload>install the certificate</a
        > on the device, then install Corvel from the browser’s menu.
      </li>
    </ol>
  {:else}
    <p>
      Start Corvel with <code>npm start -- --share</code>, and open this page on that machine: it
      shows the address, the passcode and a code to scan.
    </p>
    <p>
      Over plain HTTP a browser gives another device neither the microphone nor pages without the
      server, so sharing uses HTTPS with a certificate of its own.
    </p>
  {/if}
</main>
