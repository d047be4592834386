<script lang="ts">
  // The weights of a piece as a table; each can be struck through with a reason, and counted again.
  import { tick } from 'svelte';

  import type { Schema } from '../../api/client';
  import { standOn, takesFocus } from '../../keys/focus';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime, percent } from '../../units/format';
  import { weightAsTyped, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import { type Refresh, restore, strike } from './weigh.svelte';

  let { piece, refresh }: { piece: Schema['PieceOut']; refresh: Refresh } = $props();
  let section = $state<HTMLElement>();
  let striking = $state<number | null>(null);
  let reason = $state('');

  async function doStrike(weighing: Schema['WeighingOut'], why: string): Promise<void> {
    if (!why.trim()) return;
    try {
      refresh(await strike(weighing.id, why));
      striking = null;
      await tick();
      const back = section?.querySelector<HTMLElement>(`[data-weighing='${weighing.id}'] button`) ?? section;
      if (back) standOn(back);
      session.say(words.piece.struck(weightText(weighing.gross_g)), async () =>
        refresh(await restore(weighing.id)),
      );
    } catch (error) {
      session.complain(error);
    }
  }
  async function doRestore(weighing: Schema['WeighingOut']): Promise<void> {
    try {
      refresh(await restore(weighing.id));
      session.say(words.piece.restored(weightText(weighing.gross_g)));
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<section class="mt-4" bind:this={section}>
  <h3 class="font-tag text-lg font-semibold">{words.piece.weights}</h3>
  {#if piece.weighings.length === 0}
    <p class="quiet">{words.piece.noWeights}</p>
  {:else}
    <table class="w-full">
      <thead class="sr-only">
        <tr>
          <th>{words.piece.date}</th><th>{words.piece.scale}</th><th>{words.piece.loss}</th><th
            >{words.piece.who}</th
          ><td></td>
        </tr>
      </thead>
      <tbody>
        {#each piece.weighings as w (w.id)}
          <tr
            data-weighing={w.id}
            class="border-base-300 border-b align-top"
            class:struck={w.struck_at !== null}
          >
            <td class="py-1.5 pr-2 whitespace-nowrap max-md:text-sm">{dayAndTime(w.at)}</td>
            <td class="py-1.5 pr-2 text-right font-semibold whitespace-nowrap">{weightAsTyped(w.gross_g)}</td>
            <td class="py-1.5 pr-2 text-right whitespace-nowrap"
              >{w.loss_percent === null || w.loss_percent < -5 ? '–' : percent(w.loss_percent)}</td
            >
            <td class="quiet py-1.5 pr-2 text-sm">{w.by}</td>
            <td class="py-0.5 text-right">
              {#if w.struck_at}
                <button class="btn btn-ghost btn-sm min-h-9 no-underline" onclick={() => doRestore(w)}
                  >{words.piece.restore}</button
                >
              {:else}
                <button
                  class="btn btn-ghost btn-sm min-h-9 max-md:px-1"
                  aria-expanded={striking === w.id}
                  onclick={() => {
                    striking = striking === w.id ? null : w.id;
                    reason = '';
                  }}>{words.piece.strike}</button
                >
              {/if}
            </td>
          </tr>
          {#if w.struck_at}
            <tr
              ><td colspan="5" class="quiet pb-1.5 text-sm"
                >{w.struck_reason} · {w.struck_by}, {dayAndTime(w.struck_at)}</td
              ></tr
            >
          {:else if w.doubt || (w.kept && !w.confirmed)}
            <tr
              ><td colspan="5" class="text-warning pb-1.5 text-sm first-letter:uppercase"
                >{w.doubt ? said(w.doubt) : words.life.scale.kept}</td
              ></tr
            >
          {/if}
          {#if striking === w.id}
            <tr>
              <td colspan="5" class="pb-2">
                <p class="text-sm">{words.piece.strikeReason}</p>
                <div class="mt-1 flex flex-wrap gap-1.5" {@attach takesFocus}>
                  {#each words.piece.reasons as why (why)}
                    <button class="btn btn-sm min-h-11" onclick={() => doStrike(w, why)}>{why}</button>
                  {/each}
                  <form
                    class="flex flex-1 gap-1.5"
                    onsubmit={(event) => {
                      event.preventDefault();
                      void doStrike(w, reason);
                    }}
                  >
                    <input
                      class="input min-h-11 min-w-24 flex-1"
                      bind:value={reason}
                      maxlength="200"
                      aria-label={words.piece.strikeReason}
                    />
                    <button class="btn min-h-11" disabled={!reason.trim()}>OK</button>
                  </form>
                </div>
              </td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  {/if}
</section>

<style>
  .struck td:not(:last-child) {
    text-decoration: line-through;
    color: var(--quiet);
  }
</style>
