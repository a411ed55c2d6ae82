<script lang="ts">
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();

  interface Operation {
    readonly post: {
      readonly summary: string;
      readonly requestBody: { readonly content: Content };
      readonly responses: { readonly 200: { readonly content: Content } };
    };
  }
  /** By its media type: JSON, or a recording as it is. */
  type Content = Readonly<Record<string, { readonly schema: unknown }>>;

  const operations = $derived(
    Object.entries(data.description.paths).map(([path, operation]) => {
      const { post } = operation as Operation;
      const shape = (content: Content) =>
        Object.entries(content)
          .map(([type, { schema }]) => {
            const said = JSON.stringify(schema, null, 2);
            return type === 'application/json' ? said : `${type}\n${said}`;
          })
          .join('\n');
      return {
        path,
        summary: post.summary,
        request: shape(post.requestBody.content),
        answer: shape(post.responses[200].content),
      };
    }),
  );
</script>

<svelte:head><title>Engine over HTTP · Corvel</title></svelte:head>

<main class="mx-auto flex max-w-4xl flex-col gap-6 p-4 sm:p-8">
  <h1 class="heading text-3xl">The engine over HTTP</h1>
  <p class="max-w-prose">
    {data.description.info.description} Send <code>POST</code> with
    <code>content-type: application/json</code>; the same description for programs is at
    <a class="underline" href="/api/engine">/api/engine</a>. Errors answer as
    <code>{'{"error":{"code","message",…}}'}</code> with a sentence for the player.
  </p>
  {#each operations as { path, summary, request, answer } (path)}
    <section class="border-t border-line pt-4">
      <h2 class="heading text-xl">POST {path}</h2>
      <p class="mb-3">{summary}</p>
      <div class="grid gap-4 md:grid-cols-2">
        {#each [['Request', request], ['Answer', answer]] as const as [name, schema] (name)}
          <details>
            <summary class="cursor-pointer font-semibold">{name}</summary>
            <pre
              class="overflow-x-auto rounded-sm border border-line bg-sheet p-3 text-xs">{schema}</pre>
          </details>
        {/each}
      </div>
    </section>
  {/each}
</main>
