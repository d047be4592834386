<script lang="ts">
  // One small control, the same in every form that records something: when it was. Now by default.
  import { weekdayAndYear } from '../units/format';
  import { words } from '../words';
  import type { When } from './when.svelte';

  interface Props {
    when: When;
    /** What it is the moment of, where "when" alone would not say so. */
    label?: string;
    /** What it means to type nothing, where that is not now. */
    unset?: string;
    onchange?: () => void;
  }
  let { when, label = words.when.label, unset = words.when.now, onchange }: Props = $props();
  const id = $props.id();
  const said = $derived(when.understood);
  let box = $state<HTMLInputElement | null>(null);

  function unfold(): void {
    when.open = true;
    requestAnimationFrame(() => box?.focus());
  }
  function back(): void {
    when.clear();
    onchange?.();
  }
</script>

<div class="when">
  {#if !when.open}
    <button type="button" class="now" onclick={unfold}
      >{label}: <strong>{unset}</strong> <span class="change">{words.when.change}</span></button
    >
  {:else}
    <label class="text-sm font-semibold" for={id}>{label}</label>
    <div class="flex gap-2">
      <input
        {id}
        bind:this={box}
        class="input min-h-11 min-w-0 flex-1"
        class:input-error={said !== null && 'fault' in said}
        autocomplete="off"
        placeholder={words.when.examples}
        value={when.text}
        oninput={(event) => {
          when.type(event.currentTarget.value);
          onchange?.();
        }}
        aria-describedby="{id}-said"
      />
      <button type="button" class="btn min-h-11" onclick={back}>{unset}</button>
    </div>
    <p id="{id}-said" class="said" aria-live="polite">
      {#if said === null}
        {unset === words.when.now ? words.when.isNow : unset}
      {:else if 'at' in said}
        = {weekdayAndYear(said.at)}
      {:else if 'either' in said}
        {words.when.which}
        {#each said.either as day (day.getTime())}
          <button
            type="button"
            class="btn btn-sm min-h-11"
            aria-pressed={when.shown === day.toISOString()}
            class:btn-primary={when.shown === day.toISOString()}
            onclick={() => {
              when.choose(day);
              onchange?.();
            }}>{weekdayAndYear(day)}</button
          >
        {/each}
      {:else}
        <span class="text-error">{words.when[said.fault]}</span>
      {/if}
    </p>
  {/if}
</div>

<style>
  .now {
    min-height: 44px;
    color: var(--quiet);
    cursor: pointer;
  }
  .now strong {
    color: var(--color-base-content);
    font-weight: 600;
  }
  .change {
    text-decoration: underline;
    text-underline-offset: 4px;
  }
  .said {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem;
    min-height: 1.6rem;
    font-size: 0.95rem;
  }
</style>
