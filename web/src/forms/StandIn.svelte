<script lang="ts">
  // A button for a simulated instrument; only there where the workshop is simulated, and marked so.
  import { createQuery } from '@tanstack/svelte-query';

  import { lineQuery } from '../api/queries';
  import { session } from '../shell/session.svelte';
  import { words } from '../words/en';

  interface Props {
    label: string;
    ask: () => Promise<number | null>;
    onvalue: (value: number) => void;
  }
  let { label, ask, onvalue }: Props = $props();
  const line = createQuery(lineQuery);
  let busy = $state(false);

  async function show(): Promise<void> {
    busy = true;
    try {
      const value = await ask();
      if (value !== null) onvalue(value);
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
</script>

{#if line.data?.simulated}
  <button type="button" class="btn btn-sm min-h-11" disabled={busy} onclick={() => void show()}
    >{label} <span class="text-info font-normal">{words.placeFacts.simulated}</span></button
  >
{/if}
