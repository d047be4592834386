<script lang="ts">
  // Out of the salt: weighed, rinsed or blotted, perhaps soaked; a weight that cannot be is asked about.
  import { untrack } from 'svelte';

  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { typedNumber } from '../../units/number';
  import { fieldText, typedAs, weightRange } from '../../units/quantity';
  import { words } from '../../words';
  import { takesFocus } from '../../keys/focus';
  import { session } from '../../shell/session.svelte';
  import type { Card, SaltDesk } from './saltdesk.svelte';

  let { card, desk }: { card: Card; desk: SaltDesk } = $props();
  const say = words.salt.out;
  let weight = $state('');
  let after = $state<'blot' | 'rinse' | 'soak'>(untrack(() => card.after));
  let hours = $state('1');
  let fault = $state<string | null>(null);
  let open = $state(false);
  let notWeighed = $state(false);
  const moment = new Moment();
  const shown = $derived(
    open || card.state === 'right' || card.state === 'late' || card.state === 'may_come_out',
  );

  async function takeOut(sure: boolean): Promise<void> {
    const value = notWeighed ? null : typedAs('mass', weight);
    const soak = after === 'soak' ? typedNumber(hours) : null;
    fault =
      (value === null && !notWeighed) || (after === 'soak' && soak === null) ? words.errors.noNumber : null;
    if (fault !== null) return;
    const tag = card.tag;
    const out = await desk.note('out', [card.id], { value, sure, not_weighed: notWeighed }, moment);
    if (!out) return;
    await desk.note(after, [card.id], { value: soak }, moment);
    moment.clear();
    session.say(words.salt.allDone(words.salt.kinds.out, tag));
  }
</script>

{#if shown}
  <form
    {@attach takesFocus}
    class="mt-4"
    aria-label={say.title}
    onsubmit={(e) => {
      e.preventDefault();
      void takeOut(false);
    }}
  >
    <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
    {#if card.out_is_early}<p class="text-warning">
        {say.early}
      </p>{/if}
    <div class="flex flex-wrap items-end gap-3">
      <div class="w-44">
        <Field
          label={say.weight}
          numeric
          bind:value={weight}
          hint={say.expected(weightRange(card.expected_low_g, card.expected_high_g))}
          onchange={() => (desk.question = null)}
          fault={fault !== null}
        />
      </div>
      <label class="flex min-h-11 items-center gap-2"
        ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={notWeighed} />{words.done
          .notWeighed}</label
      >
      <div class="flex min-h-11 items-center gap-3">
        {#each ['blot', 'rinse', 'soak'] as const as way (way)}
          <label class="flex min-h-11 items-center gap-1"
            ><input type="radio" class="radio radio-sm" value={way} bind:group={after} />{say[way]}</label
          >
        {/each}
      </div>
      {#if after === 'soak'}<div class="w-28">
          <Field label={say.hours} numeric bind:value={hours} />
        </div>{/if}
    </div>
    {#if !notWeighed}<div class="mt-1">
        <Instrument
          kind="scale"
          cable
          onvalue={(value) => {
            weight = fieldText('mass', value);
            desk.question = null;
          }}
        />
      </div>{/if}
    <When when={moment} />
    {#if fault}<p class="text-error" role="alert">{fault}</p>{/if}
    {#if desk.question}
      <p class="text-warning mt-2 font-semibold" role="alert">{desk.question}</p>
      <button type="button" class="btn mt-1 min-h-11" onclick={() => void takeOut(true)}>{say.keep}</button>
    {/if}
    <button class="btn btn-primary mt-2 min-h-11" disabled={desk.busy}>{say.take}</button>
  </form>
{:else}
  <button class="btn mt-3 min-h-11" onclick={() => (open = true)}>{say.take}</button>
{/if}
