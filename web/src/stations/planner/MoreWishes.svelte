<script lang="ts">
  // Where it hangs, how long it rests, how sure it has to be, whether the meat is frozen, for whom it is.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, take } from '../../api/client';
  import Num from '../../forms/Num.svelte';
  import { words } from '../../words';
  import type { Hand } from './hand.svelte';

  let { hand, begun }: { hand: Hand; begun: boolean } = $props();
  const say = words.plan;
  const CHANCES = [0.5, 0.8, 0.9, 0.95];
  const wish = $derived(hand.wish!);
  const stretches = $derived(hand.plan?.stretches ?? false);
  const offers = createQuery(() => {
    const body = { ...wish };
    return {
      queryKey: ['plan-places', body, hand.kept?.id ?? null],
      queryFn: () =>
        take(api.POST('/api/plans/places', { body, params: { query: { plan_id: hand.kept?.id ?? null } } })),
      staleTime: 60_000,
      placeholderData: (before: unknown) => before as never,
    };
  });
  const set = (name: 'rest_days' | 'order_days' | 'wait_days') => (value: number | null) => {
    const keep = name === 'order_days' ? {} : { start: begun || hand.kept ? wish.start : null };
    hand.set({ [name]: name === 'order_days' ? Math.round(value ?? 0) : (value ?? 0), ...keep });
  };
</script>

<div class="more">
  <label class="one"
    ><span class="quiet">{say.fields.place}</span>
    <select
      class="select min-h-11 text-base"
      disabled={begun}
      value={wish.place_id}
      onchange={(event) => hand.set({ place_id: Number(event.currentTarget.value) })}
    >
      {#each offers.data ?? [] as offer (offer.place_id)}
        <option value={offer.place_id}
          >{say.offer(
            offer.name,
            Math.max(offer.hooks_free, 0),
            say.suits[offer.verdict ?? 'unknown'],
          )}</option
        >
      {/each}
    </select></label
  >
  <span class="one"
    ><span class="quiet">{say.fields.rest}</span><Num
      label={say.fields.rest}
      value={wish.rest_days}
      digits={0}
      onset={set('rest_days')}
    /></span
  >
  <span class="one"
    ><span class="quiet">{say.fields.order}</span><Num
      label={say.fields.order}
      value={wish.order_days}
      digits={0}
      onset={set('order_days')}
    /></span
  >
  {#if stretches}
    <span class="one"
      ><span class="quiet">{say.fields.wait}</span><Num
        label={say.fields.wait}
        value={wish.wait_days}
        digits={0}
        onset={set('wait_days')}
      /></span
    >
  {/if}
  <label class="one"
    ><span class="quiet">{say.fields.chance}</span>
    <select
      class="select min-h-11 text-base"
      value={String(wish.chance)}
      onchange={(event) =>
        hand.set({ chance: Number(event.currentTarget.value), start: hand.kept ? wish.start : null })}
    >
      {#each CHANCES as chance (chance)}
        <option value={String(chance)}>{say.chances[String(chance) as keyof typeof say.chances]}</option>
      {/each}
    </select></label
  >
  <label class="one"
    ><span class="quiet">{say.fields.occasion}</span>
    <input
      class="input min-h-11 w-44 text-base"
      maxlength="120"
      value={wish.occasion}
      onchange={(event) => hand.set({ occasion: event.currentTarget.value.trim() })}
    /></label
  >
  <label class="one min-h-11 items-center"
    ><input
      class="checkbox"
      type="checkbox"
      checked={wish.frozen}
      onchange={(event) => hand.set({ frozen: event.currentTarget.checked })}
    />
    {say.fields.frozen}</label
  >
</div>

<style>
  .more {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.3rem 1.1rem;
    padding-bottom: 0.2rem;
  }
  .one {
    display: inline-flex;
    align-items: baseline;
    gap: 0.4rem;
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    .more {
      display: grid;
      gap: 0.4rem;
    }
    .one {
      display: grid;
      grid-template-columns: 9rem minmax(0, 1fr);
      white-space: normal;
    }
  }
</style>
