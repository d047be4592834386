<script lang="ts">
  // What settles a hurdle: a laboratory value, the parasite step, other limits.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import Reason from '../../forms/Reason.svelte';
  import { optionalNumber } from '../../forms/typed';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { fullDay, tidyNumber } from '../../units/format';
  import { words } from '../../words/en';

  interface Props {
    batch: number;
    data: Schema['LedgerOut'];
    took: (answer: Schema['LedgerOut']) => void;
  }
  let { batch, data, took }: Props = $props();
  const say = words.bench.hurdles;
  const limits = createQuery(() => ({ queryKey: ['limits'], queryFn: () => take(api.GET('/api/limits')) }));

  let kind = $state<'' | 'lab' | 'parasites' | 'limits'>('');
  let what = $state<Schema['LabIn']['what']>('water_activity');
  let way = $state<Schema['ParasiteIn']['way']>('certified');
  const typed = $state({ value: '', loss: '', note: '', c: '', days: '', thick: '' });
  let fault = $state<string | null>(null);
  const given = new Moment();
  let striking = $state<number | null>(null);
  let changed = $state<Schema['ProfileChanged']['changed'] | null>(null);
  const path = $derived({ params: { path: { batch_id: batch } } });

  /** What is typed, on its way; throws for what is no number. */
  function sent(): Promise<Schema['LedgerOut']> {
    if (kind === 'lab') {
      const value = optionalNumber(typed.value);
      if (value === null) throw new Error(words.errors.noNumber);
      const body = {
        what,
        value,
        loss_percent: optionalNumber(typed.loss),
        note: typed.note,
        ...head(given),
      };
      return take(api.POST('/api/batches/{batch_id}/laboratory', { ...path, body }));
    }
    const body = {
      way,
      temperature_c: optionalNumber(typed.c),
      days: optionalNumber(typed.days),
      thickness_cm: optionalNumber(typed.thick),
      note: typed.note,
      ...head(),
    };
    return take(api.POST('/api/batches/{batch_id}/parasites', { ...path, body }));
  }
  async function enter(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      took(await sent());
      kind = '';
      fault = null;
      typed.value = typed.loss = typed.note = '';
      given.clear();
    } catch (error) {
      fault = error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }
  async function judgeBy(profile: string): Promise<void> {
    try {
      const answer = await take(
        api.PUT('/api/batches/{batch_id}/profile', { ...path, body: { profile, by: session.who } }),
      );
      changed = answer.changed;
      took(answer.ledger);
    } catch (error) {
      session.complain(error);
    }
  }
  async function strike(id: number, reason: string): Promise<void> {
    striking = null;
    const params = { path: { result_id: id } };
    try {
      took(
        await take(
          api.POST('/api/laboratory/{result_id}/strike', { params, body: { reason, by: session.who } }),
        ),
      );
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<form class="mt-3" onsubmit={enter} aria-label={say.settle}>
  <label class="flex items-center gap-2"
    ><span class="font-semibold">{say.settle}</span>
    <select class="pick" bind:value={kind} aria-label={say.settle}>
      <option value="">…</option>
      <option value="lab">{say.lab}</option>
      <option value="parasites">{say.parasites}</option>
      <option value="limits">{say.limits}</option>
    </select></label
  >
  {#if kind === 'lab'}
    <div class="mt-2 grid grid-cols-2 gap-3">
      <select class="select col-span-2 min-h-11 w-full" bind:value={what} aria-label={say.lab}>
        {#each Object.entries(say.labWhat) as [key, name] (key)}<option value={key}>{name}</option>{/each}
      </select>
      <Field label={say.labValue} numeric required bind:value={typed.value} />
      {#if what === 'water_activity'}<Field label={say.labLoss} numeric bind:value={typed.loss} />{/if}
      <div class="col-span-2"><Field label={say.labNote} required bind:value={typed.note} /></div>
    </div>
  {:else if kind === 'parasites'}
    <div class="mt-2 grid grid-cols-3 gap-3">
      <select class="select col-span-3 min-h-11 w-full" bind:value={way} aria-label={say.parasites}>
        {#each Object.entries(say.ways) as [key, name] (key)}<option value={key}>{name}</option>{/each}
      </select>
      {#if way === 'frozen'}
        <Field label={say.frozenAt} numeric required bind:value={typed.c} />
        <Field label={say.frozenDays} numeric required bind:value={typed.days} />
        <Field label={say.frozenThick} numeric bind:value={typed.thick} />
      {/if}
      <div class="col-span-3"><Field label={words.bench.note} bind:value={typed.note} /></div>
    </div>
  {:else if kind === 'limits'}
    <select
      class="select mt-2 min-h-11 w-full"
      value={data.profile}
      aria-label={say.limits}
      onchange={(e) => void judgeBy(e.currentTarget.value)}
    >
      {#each limits.data ?? [] as one (one.id)}<option value={one.id}>{one.name}, {one.as_of}</option>{/each}
    </select>
    <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/bench/limits')}
      >{words.bench.limitsPage.link}</a
    >
  {/if}
  {#if kind === 'lab'}<When when={given} />{/if}
  {#if kind === 'lab' || kind === 'parasites'}<button class="btn mt-2 min-h-11">{say.enter}</button>{/if}
  {#if fault}<p class="text-error first-letter:uppercase" role="alert">{fault}</p>{/if}
  {#if changed}
    <p class="mt-1" role="status">{say.profileChanged(changed.length)}</p>
    {#each changed as one (one.name)}
      <p>{say.stoodNow(say.names[one.name] ?? one.name, say.states[one.was], say.states[one.now])}</p>
    {/each}
  {/if}
</form>
{#if data.laboratory.length}
  <ul class="mt-2 text-sm">
    {#each data.laboratory as one (one.id)}
      <li class="flex items-baseline gap-2">
        <span class="flex-1" class:line-through={one.struck_reason !== null}
          ><strong>{say.labWhat[one.what]}</strong>
          {tidyNumber(one.value, 3)} · {one.note} <span class="quiet">{fullDay(one.at)}, {one.by}</span></span
        >
        {#if one.struck_reason === null}<button
            type="button"
            class="quiet min-h-8 underline"
            onclick={() => (striking = one.id)}>{say.labStrike}</button
          >{/if}
      </li>
      {#if striking === one.id}
        <li>
          <Reason
            label={say.labWhy}
            button={say.labStrike}
            onanswer={(reason) => void strike(one.id, reason)}
          />
        </li>
      {/if}
    {/each}
  </ul>
{/if}
