<script lang="ts">
  // A piece off its hook: it stands as it was; what became of it, what happens now, and taking a mistake back.
  import { api, type Schema, take } from '../../api/client';
  import Reason from '../../forms/Reason.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime, fullDay, percent } from '../../units/format';
  import { weightAsTyped } from '../../units/quantity';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import Become from './Become.svelte';
  import type { Refresh } from './weigh.svelte';

  interface Props {
    piece: Schema['PieceOut'];
    refresh: Refresh;
    moving: boolean;
    onhangagain: () => void;
  }
  let { piece, refresh, moving, onhangagain }: Props = $props();
  const say = words.life;
  const card = $derived(piece.card);
  const life = $derived(card.life);
  let changing = $state(false);
  let takingBack = $state(false);

  function done(answer: Schema['PieceOut']): void {
    changing = false;
    refresh(answer);
    session.say(say.takeDown.changed(card.tag));
  }
  async function takeBack(reason: string): Promise<void> {
    try {
      const answer = await take(
        api.POST('/api/pieces/{piece_id}/take-back', {
          params: { path: { piece_id: card.id } },
          body: { reason, by: session.who },
        }),
      );
      takingBack = false;
      refresh(answer);
      session.say(say.takenBack(card.tag));
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<p class="font-tag mt-2 text-2xl font-semibold first-letter:uppercase" data-testid="life">
  {say.kinds[life.kind]}{life.how ? `, ${say.ways[life.how]}` : ''}
</p>
<p class="quiet">{say.since(say.kinds[life.kind], fullDay(life.since), life.place, life.by)}.</p>
<p class="quiet">
  {card.scale
    ? say.stands(
        weightAsTyped(card.scale.gross_g),
        card.scale.loss_percent === null ? null : percent(card.scale.loss_percent),
        dayAndTime(card.scale.at),
      )
    : say.standsUnweighed}
  {say.still}
</p>
<div class="mt-2 flex flex-wrap gap-2">
  {#if life.kind !== 'gone'}
    <button class="btn min-h-11" aria-expanded={changing} onclick={() => (changing = !changing)}
      >{say.next}</button
    >
    <button class="btn min-h-11" class:btn-primary={moving} aria-pressed={moving} onclick={onhangagain}
      >{moving ? say.hangHint : say.hangAgain}</button
    >
  {/if}
  <button class="btn btn-ghost min-h-11" aria-expanded={takingBack} onclick={() => (takingBack = !takingBack)}
    >{say.takeBack}</button
  >
</div>
{#if takingBack}<Reason
    label={say.takeBackWhy}
    button={say.takeBack}
    onanswer={(why) => void takeBack(why)}
  />{/if}
{#if changing}{#key card.id}<Become
      {card}
      hangs={false}
      ondone={done}
      onclose={() => (changing = false)}
    />{/key}{/if}
{#if piece.states.length}
  <ul class="mt-2 text-sm">
    {#each piece.states as state (state.id)}
      <li class="py-0.5" class:line-through={state.struck_reason !== null}>
        <strong class="font-semibold">{say.kinds[state.kind]}</strong>
        {say.ways[state.how]}
        {fullDay(state.since)}{state.to_at ? ` – ${fullDay(state.to_at)}` : ''}
        <span class="quiet">{state.by} {state.note} {state.against.map(said).join('; ')}</span>
        {#if state.struck_reason}<span class="quiet">({state.struck_reason})</span>{/if}
      </li>
    {/each}
  </ul>
{/if}
