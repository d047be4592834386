<script lang="ts">
  // All of it is in the bowl: it becomes a batch.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { keys } from '../../api/queries';

  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import { navigate } from '../../shell/router';
  import { words } from '../../words';

  let { state: out, places }: { state: Schema['WeighOutOut']; places: Schema['PlaceOut'][] } = $props();
  const say = words.bench.weigh;
  const client = useQueryClient();
  let typed = $state<string | null>(null);
  const code = $derived(typed ?? out.next_code);
  let pinch = $state(0);
  let joins = $state(0); // 0: a batch of its own
  let mix = $state('');
  let problem = $state<string | null>(null);

  async function make(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      const params = { path: { weigh_out_id: out.id } };
      const made = joins
        ? await take(
            api.POST('/api/weigh-outs/{weigh_out_id}/mix', {
              params,
              body: { batch_id: joins, name: mix, ...head() },
            }),
          )
        : await take(
            api.POST('/api/weigh-outs/{weigh_out_id}/batch', {
              params,
              body: { code, pinch_place_id: pinch || null, ...head() },
            }),
          );
      void client.invalidateQueries({ queryKey: keys.bench });
      await navigate('/bench/batch/:id', { params: { id: String(made.id) } });
    } catch (error) {
      problem = error instanceof Error ? error.message : words.errors.unexpected(0);
    }
  }
</script>

<h2 class="font-tag text-4xl font-bold">{say.all}</h2>
<form class="mt-4 flex max-w-md flex-col gap-3" onsubmit={make}>
  {#if out.may_join.length}
    <label class="block">
      <span class="text-sm font-semibold">{say.whatBecomes}</span>
      <select class="select min-h-11 w-full text-base" bind:value={joins}>
        <option value={0}>{say.own}</option>
        {#each out.may_join as one (one.id)}<option value={one.id}>{say.mixOf(one.code, one.product)}</option
          >{/each}
      </select>
    </label>
  {/if}
  {#if joins}
    <Field label={say.mixName} hint={say.mixHint} bind:value={mix} required fault={problem !== null} />
  {:else}
    <Field
      label={say.code}
      bind:value={() => code, (text) => (typed = text)}
      required
      fault={problem !== null}
    />
  {/if}
  {#if out.asks_temperature && !joins}
    <label class="block">
      <span class="text-sm font-semibold">{say.pinch}</span>
      <select class="select min-h-11 w-full text-base" bind:value={pinch}>
        <option value={0}>{say.noPinch}</option>
        {#each places as place (place.id)}<option value={place.id}>{place.name}</option>{/each}
      </select>
      <span class="quiet text-sm">{say.pinchWhy}</span>
    </label>
  {/if}
  {#if problem}<p class="text-error first-letter:uppercase" role="alert">{problem}</p>{/if}
  <button class="btn btn-primary btn-lg">{joins ? say.join : say.batch}</button>
</form>
