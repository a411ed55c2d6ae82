<!-- The sign of a repeat: heavy line, thin line, two dots towards the music. -->
<script lang="ts">
  interface Props {
    readonly side: 'start' | 'end';
  }

  let { side }: Props = $props();
</script>

<svg
  viewBox="0 0 12 28"
  class="h-7 w-3 shrink-0 self-center {side === 'end' ? '-scale-x-100' : ''}"
  aria-hidden="true"
>
  <path class="fill-ink" d="M0 0h3v28H0zM5 0h1v28H5z" />
  <circle class="fill-ink" cx="10" cy="10" r="1.8" />
  <circle class="fill-ink" cx="10" cy="18" r="1.8" />
</svg>
