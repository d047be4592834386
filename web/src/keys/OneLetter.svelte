<script lang="ts">
  // Keys of one letter, on or off in this browser.
  import { words } from '../words';
  import { singleKeys } from './single.svelte';
</script>

<label class="flex min-h-11 items-center gap-2"
  ><input
    type="checkbox"
    class="checkbox"
    checked={singleKeys.on}
    onchange={(event) => singleKeys.turn(event.currentTarget.checked)}
  />{words.keys.single}</label
>
