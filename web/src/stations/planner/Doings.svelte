<script lang="ts">
  // What can be done with the plan in hand: keep it, put it back, weigh it out, give it up.
  import { api, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { undo } from '../../api/undo';
  import Reason from '../../forms/Reason.svelte';
  import { navigate } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { longDay } from '../../units/format';
  import { words } from '../../words';
  import Became from './Became.svelte';
  import type { Hand } from './hand.svelte';

  interface Props {
    hand: Hand;
    onclose: () => void;
    onchanged: () => Promise<void>;
  }
  let { hand, onclose, onchanged }: Props = $props();
  const say = words.plan;
  let busy = $state(false);
  let givingUp = $state(false);
  const kept = $derived(hand.kept);

  async function tried(what: () => Promise<void>): Promise<void> {
    busy = true;
    try {
      await what();
    } catch (error) {
      session.complain(error);
    } finally {
      busy = false;
    }
  }
  const keep = () =>
    tried(async () => {
      const anew = kept !== null;
      const answer = await hand.keep('');
      const made = answer.made.filter((one) => one.what === 'plan_setting');
      const { product, start, wanted, state, id } = answer.plan;
      const changed =
        state === 'planned' ? say.moved(product, longDay(start)) : say.promised(product, longDay(wanted));
      session.say(anew ? changed : say.kept(product), async () => {
        await undo(made);
        if (anew && id) await hand.take(id);
        else onclose();
        await onchanged();
      });
      await onchanged();
    });
  const begin = () =>
    tried(async () => {
      if (!kept?.id) return;
      const params = { path: { plan_id: kept.id } };
      const made = await take(
        api.POST('/api/plans/{plan_id}/begin', { params, body: { profile: 'us', ...head() } }),
      );
      void onchanged();
      await navigate('/bench/weigh/:id', { params: { id: String(made.weigh_out_id) } });
    });
  const giveUp = (reason: string) =>
    tried(async () => {
      if (!kept?.id) return;
      const params = { path: { plan_id: kept.id } };
      await take(api.POST('/api/plans/{plan_id}/give-up', { params, body: { reason, ...head() } }));
      session.say(say.gaveUp(kept.product));
      onclose();
      await onchanged();
    });
</script>

<div class="doings">
  {#if !kept}
    <button
      class="btn btn-primary min-h-11"
      disabled={busy || hand.looking || !hand.plan || !!hand.problem}
      onclick={keep}>{say.keep}</button
    >
  {:else if hand.changed}
    <button class="btn btn-primary min-h-11" disabled={busy || hand.looking || !!hand.problem} onclick={keep}
      >{say.keepChange}</button
    >
    <button class="btn min-h-11" onclick={() => kept?.id && void hand.take(kept.id)}>{say.putBack}</button>
  {:else if kept.state === 'planned'}
    <button class="btn btn-primary min-h-11" disabled={busy} onclick={begin}>{say.make}</button>
  {:else if kept.state === 'weighing' && kept.weigh_out_id}
    <button
      class="btn btn-primary min-h-11"
      onclick={() => navigate('/bench/weigh/:id', { params: { id: String(kept?.weigh_out_id) } })}
      >{say.open.weighing}</button
    >
  {:else if kept.batch_id && kept.batch}
    <button
      class="btn btn-primary min-h-11"
      onclick={() => navigate('/book/batch/:id', { params: { id: String(kept?.batch_id) } })}
      >{say.open.batch(kept.batch)}</button
    >
  {/if}
  {#if kept && !givingUp}
    <button class="min-h-11 underline underline-offset-4" onclick={() => (givingUp = true)}
      >{say.giveUp}</button
    >
  {/if}
  <button class="min-h-11 underline underline-offset-4" onclick={onclose}>{say.close}</button>
  {#if kept?.id && kept.state === 'planned' && !hand.changed}
    <Became plan={kept} ondone={() => tried(async () => (await hand.take(kept.id!), await onchanged()))} />
  {/if}
</div>
{#if givingUp}<Reason label={say.giveUpWhy} button={say.giveUp} onanswer={giveUp} />{/if}

<style>
  .doings {
    display: flex;
    flex-direction: column;
    gap: 0.4rem;
    width: 11rem;
    flex: none;
  }
  @media (max-width: 700px) {
    .doings {
      width: 100%;
    }
  }
</style>
