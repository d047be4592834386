<script lang="ts">
  // A reason, typed before something is struck through, held or thrown away.
  import { takesFocus } from '../keys/focus';

  interface Props {
    label: string;
    button: string;
    grave?: boolean;
    onanswer: (reason: string) => void;
  }
  let { label, button, grave = false, onanswer }: Props = $props();
  let reason = $state('');
</script>

<form
  class="mt-1 flex gap-2"
  {@attach takesFocus}
  onsubmit={(event) => {
    event.preventDefault();
    onanswer(reason);
  }}
>
  <input class="input min-h-11 grow" required placeholder={label} aria-label={label} bind:value={reason} />
  <button class="btn min-h-11" class:btn-error={grave}>{button}</button>
</form>
