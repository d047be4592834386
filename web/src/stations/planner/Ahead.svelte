<script lang="ts">
  // What must I start, and when? The weeks ahead, place by place; beneath them the plan in hand.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { keys, lineQuery } from '../../api/queries';
  import { api, take } from '../../api/client';
  import { inAddress, intoAddress } from '../../shell/address';
  import Line from '../../shell/Line.svelte';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import { brought, Hand } from './hand.svelte';
  import Strip from './Strip.svelte';
  import { tenths, weeksFrom } from './weeks';
  import WishBar from './WishBar.svelte';

  const say = words.plan;
  const SPANS = [8, 12, 26];
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const ahead = createQuery(() => ({ queryKey: keys.ahead, queryFn: () => take(api.GET('/api/ahead')) }));
  const hand = new Hand();
  let width = $state(0);
  let span = $state(Number(inAddress('weeks')) || (innerWidth < 700 ? 8 : 12));
  let wishing = $state(false);
  $effect(() => intoAddress({ weeks: String(span), plan: hand.kept?.id?.toString() ?? null }, false));
  const first = Number(inAddress('plan'));
  if (first) void takeUp(first);
  else if (brought.wish) {
    hand.begin(brought.wish);
    brought.wish = null;
    wishing = true;
  }

  const gutter = $derived(width < 700 ? 0 : 218);
  const weeks = $derived(weeksFrom(ahead.data?.now ?? new Date().toISOString(), span, width - gutter - 4));
  // the plan in hand is drawn as it is held, whether it is kept or not
  const plans = $derived.by(() => {
    const kept = ahead.data?.plans ?? [];
    const held = hand.plan;
    if (!held || !hand.wish) return kept;
    return [...kept.filter((plan) => plan.id !== held.id), held];
  });

  async function takeUp(id: number): Promise<void> {
    try {
      await hand.take(id);
      wishing = true;
    } catch (error) {
      session.complain(error);
    }
  }
  async function lookAgain(): Promise<void> {
    void client.invalidateQueries({ queryKey: keys.today });
    await client.invalidateQueries({ queryKey: keys.ahead });
  }
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col max-md:overflow-y-auto">
  {#if line.data}<Line line={line.data} placeId={null} station="today" />{/if}
  <main
    class="min-h-0 flex-1 overflow-y-auto px-5 pt-3 pb-8 max-md:flex-none max-md:overflow-visible max-md:px-3"
  >
    <header class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <h1 class="font-tag text-3xl font-bold">{say.title}</h1>
      <p class="quiet">{say.hint}</p>
      <div class="ml-auto flex flex-wrap items-baseline gap-x-4" role="group" aria-label={say.span}>
        {#each SPANS as weeks (weeks)}
          <button
            class="span"
            class:on={span === weeks}
            aria-pressed={span === weeks}
            onclick={() => (span = weeks)}>{say.weeks(weeks)}</button
          >
        {/each}
        <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={p('/ahead/shopping')}
          >{say.shopping}</a
        >
      </div>
    </header>
    {#if ahead.isError}<p class="text-error" role="alert">{ahead.error.message}</p>{/if}
    {#if ahead.data}
      {#each ahead.data.occasions as together (together.name)}
        <p class="font-semibold">{say.together(together.name, tenths(together.chance))}</p>
      {/each}
      <div bind:clientWidth={width}>
        {#if width}
          {#each ahead.data.strips as strip, i (strip.place_id)}
            <Strip
              {strip}
              {plans}
              {weeks}
              {gutter}
              {hand}
              head={i === 0}
              ontake={takeUp}
              onchanged={lookAgain}
            />
          {:else}
            <p class="mt-6 text-lg">
              {say.noPlace} <a class="underline" href={p('/places/new')}>{say.makePlace}</a>
            </p>
          {/each}
        {/if}
      </div>
    {:else if !ahead.isError}<p class="quiet mt-4">{words.loading}</p>{/if}
  </main>
  {#if ahead.data?.strips.length}
    <WishBar
      {hand}
      bind:open={wishing}
      empty={!ahead.data.plans.length}
      now={ahead.data.now}
      onchanged={lookAgain}
    />
  {/if}
</div>

<style>
  .span {
    min-height: 44px;
    padding: 0 0.5rem;
    cursor: pointer;
  }
  .span.on {
    font-weight: 600;
    box-shadow: inset 0 -3px 0 0 var(--color-primary);
  }
</style>
