<script lang="ts">
  // A row of words to tap: one of them, or several.
  interface Props {
    name: string;
    taps: Record<string, string>;
    value?: string | null;
    /** Several may be tapped: those that are. */
    many?: string[] | null;
    onflip?: (tap: string) => void;
  }
  let { name, taps, value = $bindable(null), many = null, onflip }: Props = $props();
  const isOn = (tap: string): boolean => (many ? many.includes(tap) : value === tap);
</script>

<div class="taps" role="group" aria-label={name}>
  <span class="quiet">{name}</span>
  {#each Object.entries(taps) as [tap, word] (tap)}
    <button
      type="button"
      class="tap"
      aria-pressed={isOn(tap)}
      onclick={() => (many ? onflip?.(tap) : (value = value === tap ? null : tap))}>{word}</button
    >
  {/each}
</div>

<style>
  .taps {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.35rem;
    padding: 0.15rem 0;
  }
  .taps > span {
    width: 3.3rem;
  }
  .tap {
    min-height: 46px;
    padding: 0 min(0.7rem, 1.9vw);
    border-radius: 4px;
    background: var(--color-base-200);
    cursor: pointer;
  }
  .tap[aria-pressed='true'] {
    background: var(--color-primary);
    color: var(--color-primary-content);
    font-weight: 600;
  }
</style>
