<script lang="ts">
  // What is done now and then: a weighing, another place, a temperature, another way of salting, thrown away.
  import type { Schema } from '../../api/client';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { typedNumber } from '../../units/number';
  import { typedAs } from '../../units/quantity';
  import { words } from '../../words';
  import type { Card, EventKind, SaltDesk } from './saltdesk.svelte';

  interface Props {
    card: Card;
    desk: SaltDesk;
    places: Schema['PlaceOut'][];
    ways: Schema['WayOut'][];
  }
  let { card, desk, places, ways }: Props = $props();
  const say = words.salt;
  let kind = $state<EventKind | ''>('');
  let value = $state('');
  let place = $state(0);
  let container = $state('');
  let way = $state<Schema['WayOut']['id']>('measured');
  let percent = $state('');
  let note = $state('');
  const moment = new Moment();
  let fault = $state<string | null>(null);

  const kinds = $derived<EventKind[]>(
    card.out_at
      ? ['weigh', 'trim', 'move', 'coat', 'wrap', 'rest', 'discard']
      : ['weigh', 'check', 'move', 'way', 'press', 'discard'],
  );
  const number = $derived(kind === 'weigh' || kind === 'check' || kind === 'coat' || kind === 'trim');
  const label = $derived(
    kind === 'check'
      ? say.anew.temperature
      : kind === 'coat'
        ? say.hook.coat
        : kind === 'trim'
          ? say.trimmed
          : say.out.weight,
  );

  async function go(sure: boolean): Promise<void> {
    if (!kind) return;
    const typed = number ? typedAs(kind === 'check' ? 'temperature' : 'mass', value) : null;
    const dose = kind === 'way' ? typedNumber(percent) : null;
    fault = (number && typed === null) || (kind === 'way' && dose === null) ? words.errors.noNumber : null;
    if (fault) return;
    const answer = await desk.note(
      kind,
      [card.id],
      {
        value: typed,
        place_id: kind === 'move' && place ? place : null,
        container: kind === 'move' ? container : null,
        way: kind === 'way' ? way : null,
        percent: dose,
        note,
        sure,
      },
      moment,
    );
    if (answer) {
      moment.clear();
      kind = '';
      value = note = percent = '';
    }
  }
</script>

<form
  class="mt-4"
  aria-label={say.more}
  onsubmit={(e) => {
    e.preventDefault();
    void go(false);
  }}
>
  <label class="flex items-center gap-2"
    ><span class="font-tag text-lg font-semibold">{say.more}</span>
    <select class="pick" bind:value={kind} aria-label={say.more}>
      <option value="">…</option>
      {#each kinds as one (one)}<option value={one}>{say.kinds[one]}</option>{/each}
    </select></label
  >
  {#if kind}
    <div class="mt-2 flex flex-wrap items-end gap-3">
      {#if number}<div class="w-40"><Field {label} numeric bind:value /></div>{/if}
      {#if kind === 'move'}
        <label class="block"
          ><span class="block text-sm font-semibold">{say.put.place}</span>
          <select class="select min-h-11" bind:value={place}>
            <option value={0}>{card.place}</option>
            {#each places.filter((one) => one.id !== card.place_id) as one (one.id)}<option value={one.id}
                >{one.name}</option
              >{/each}
          </select></label
        >
        <div class="w-40"><Field label={say.put.container} bind:value={container} /></div>
      {/if}
      {#if kind === 'way'}
        <p class="text-sm">{say.anew.say}</p>
        <label class="block"
          ><span class="block text-sm font-semibold">{say.put.way}</span>
          <select class="select min-h-11" bind:value={way}>
            {#each ways as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
          </select></label
        >
        <div class="w-40"><Field label={say.put.percent.dose} numeric bind:value={percent} /></div>
      {/if}
      {#if kind === 'discard'}<div class="grow">
          <Field label={say.anew.discardWhy} bind:value={note} required />
        </div>{/if}
      <button class="btn min-h-11" disabled={desk.busy}>{words.today.done}</button>
    </div>
    <When when={moment} />
    {#if kind === 'trim'}<p class="quiet text-sm">{say.trimHint}</p>{/if}
    {#if fault}<p class="text-error" role="alert">{fault}</p>{/if}
    {#if desk.question}
      <p class="text-warning mt-2 font-semibold" role="alert">{desk.question}</p>
      <button type="button" class="btn mt-1 min-h-11" onclick={() => void go(true)}>{say.out.keep}</button>
    {/if}
  {/if}
</form>
