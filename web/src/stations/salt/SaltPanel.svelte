<script lang="ts">
  // One piece in salt, closely: its cut face, its salt over time, the rules beside each other, what was done.
  import { createQuery } from '@tanstack/svelte-query';

  import SaltCurve from '../../charts/SaltCurve.svelte';
  import { head } from '../../api/entry';
  import { api, type Schema, take } from '../../api/client';
  import { keys, saltPieceQuery } from '../../api/queries';
  import LedgerMarks from '../../goods/LedgerMarks.svelte';
  import SaltSection from '../../goods/SaltSection.svelte';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { session } from '../../shell/session.svelte';
  import { longDay } from '../../units/format';
  import { numberText } from '../../units/number';
  import { weightRange, weightText } from '../../units/quantity';
  import { said, textOf } from '../../words/said';
  import { words } from '../../words';
  import OutOfSalt from './OutOfSalt.svelte';
  import Rules from './Rules.svelte';
  import type { SaltDesk } from './saltdesk.svelte';
  import SaltEvents from './SaltEvents.svelte';
  import SomethingElse from './SomethingElse.svelte';
  import ToHook from './ToHook.svelte';

  interface Props {
    id: number;
    desk: SaltDesk;
    now: number;
    places: Schema['PlaceOut'][];
    ways: Schema['WayOut'][];
  }
  let { id, desk, now, places, ways }: Props = $props();
  const say = words.salt;
  const client = useQueryClient();
  const piece = createQuery(() => saltPieceQuery(id));
  const card = $derived(piece.data?.card);
  const rim = $derived(card?.profile.at(-1) ?? 0);

  async function chooseRules(rules: Omit<Schema['RulesIn'], 'uid' | 'by' | 'at' | 'sure'>): Promise<void> {
    try {
      const answer = await take(
        api.PUT('/api/salt/{piece_id}/rules', {
          params: { path: { piece_id: id } },
          body: { ...rules, ...head() },
        }),
      );
      client.setQueryData(keys.saltPiece(id), answer);
      void client.invalidateQueries({ queryKey: keys.salt, exact: true });
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if piece.data && card}
  <article aria-label={card.tag}>
    <div class="flex items-start gap-4">
      <SaltSection
        radius={card.radius}
        profile={card.profile}
        settles={card.settles_percent}
        geometry={card.geometry}
        size={120}
        label={say.profile(numberText(rim, 1), numberText(card.core_percent, 1))}
      />
      <div class="min-w-0">
        <h2 class="font-tag text-2xl font-bold">{card.tag}</h2>
        <p class="quiet">{card.product}</p>
        <p class="text-sm">{say.profile(numberText(rim, 1), numberText(card.core_percent, 1))}</p>
        <p class="text-sm">
          {card.place}{#if card.container}, {card.container}{/if} ·
          <span
            class:text-error={card.cold.state === 'fail'}
            class:text-warning={card.cold.state === 'unknown'}>{say.cold[card.cold.state]}</span
          >{#if card.cold.state === 'fail' || card.cold.state === 'unknown'}{card.cold.says
              ? `: ${said(card.cold.says)}`
              : ''}{/if}
        </p>
      </div>
    </div>
    <p class="mt-2 text-lg leading-snug font-semibold">
      {#if card.out_at}{say.outSince(longDay(card.out_at))}
      {:else if card.best}{say.takeOut(longDay(card.best), '')}:
        <span class="font-normal">{say.leads[card.leads]}; {textOf(card.waits_says)}.</span>
      {:else}{say.never}{/if}
    </p>
    {#if card.shed_g > 0}
      <p class="text-sm">
        {say.shedOf(weightText(card.shed_g), weightRange(card.shed_low_g, card.shed_high_g))}
      </p>
    {/if}
    <div class="mt-2"><SaltCurve curve={piece.data.curve} {card} {now} /></div>
    {#if card.out_at}
      <ToHook detail={piece.data} ondone={() => void client.invalidateQueries()} />
    {:else}
      <OutOfSalt {card} {desk} />
      <Rules
        rules={piece.data.rules}
        margin={piece.data.margin_percent}
        onchoose={chooseRules}
        free={card.leads === 'aim'}
      />
    {/if}
    <SomethingElse {card} {desk} {places} {ways} />
    <SaltEvents events={piece.data.events} {desk} />
    <LedgerMarks batch={card.batch_id} />
  </article>
{:else if piece.isError}
  <p class="text-error" role="alert">{piece.error.message}</p>
{/if}
