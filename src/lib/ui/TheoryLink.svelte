<!-- Leads from an explanation in place to the rules behind it. -->
<script lang="ts">
  interface Props {
    /** A heading of docs/theory.md, as its address has it. */
    readonly part:
      | 'keys-and-roles'
      | 'zones-and-boxes'
      | 'choosing-what-to-play'
      | 'the-change'
      | 'targets-and-routes'
      | 'landings'
      | 'practice';
    readonly of: string;
  }

  let { part, of }: Props = $props();
</script>

<a class="mt-1 inline-block text-sm text-ink-soft underline print:hidden" href="/docs/theory#{part}"
  >More on {of}</a
>
