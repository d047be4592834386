<script lang="ts">
  // Beside the room when no piece is picked: what wants a hand, most pressing first.
  import type { Schema } from '../../api/client';
  import StateMark from '../../goods/StateMark.svelte';
  import { longDay, percent } from '../../units/format';
  import { muchWeight, weightAsTyped, weightText } from '../../units/quantity';
  import { words } from '../../words';

  let { room, onpick }: { room: Schema['Room']; onpick: (id: number) => void } = $props();

  const say = words.hang;
  type Group = keyof typeof say.handGroups;
  const groups = $derived(
    (Object.keys(say.handGroups) as Group[])
      .map((name) => ({
        name,
        pieces: room.pieces.filter(
          (c) =>
            c.state === name ||
            ((c.wants as string[]).includes(name) && !(name === 'weigh' && c.state === 'likely')),
        ),
      }))
      .filter((group) => group.pieces.length > 0),
  );
  const next = $derived(
    room.pieces
      .filter((c) => c.days_left && c.ready.p50)
      .sort((a, b) => ((a.ready.p50 ?? '') < (b.ready.p50 ?? '') ? -1 : 1))[0],
  );
</script>

<section aria-label={say.hand}>
  {#if room.pieces.length}
    <h2 class="font-tag text-2xl font-bold">{say.hand}</h2>
    {#if room.shift}<p class="border-warning mt-2 border-l-4 pl-3">
        {words.rods.shift(room.shift.by_rh_percent, room.shift.by_c)}
      </p>{/if}
    {#if groups.length === 0}<p class="mt-1">{say.nothingWants}</p>{/if}
    {#each groups as group (group.name)}
      <h3 class="mt-4 font-semibold">{say.handGroups[group.name]}</h3>
      <ul>
        {#each group.pieces as card (card.id)}
          <li>
            <button
              class="hover:bg-base-200 flex min-h-11 w-full items-center gap-3 text-left"
              onclick={() => onpick(card.id)}
            >
              <StateMark
                state={group.name === 'too_fast' || group.name === 'doubtful' || group.name === 'weigh'
                  ? 'drying'
                  : group.name}
                wants={group.name === 'too_fast' || group.name === 'doubtful' || group.name === 'weigh'
                  ? [group.name]
                  : []}
              />
              <span class="font-tag w-20 font-semibold">{card.tag}</span>
              <span class="quiet flex-1 truncate">{card.product}</span>
              <span class="whitespace-nowrap"
                >{#if card.scale?.doubt}{weightAsTyped(card.scale.gross_g)}
                  ?{:else}{card.scale ? '' : '~'}{percent(card.loss_percent)}{/if}</span
              >
            </button>
          </li>
        {/each}
      </ul>
    {/each}
    {#if next?.ready.p50}<p class="mt-5">{say.nextReady(next.tag, longDay(next.ready.p50))}</p>{/if}
    <p class="quiet mt-1">
      {say.waterPerDay(weightText(room.water_g_per_day))}, {muchWeight(
        room.pieces.reduce((sum, c) => sum + (c.weight_now_g ?? 0), 0),
      )}
      {say.hanging}.
    </p>
    <p class="quiet mt-4">{say.pick}</p>
  {/if}
  {#if !room.place.air}<p class="border-info mt-4 border-l-4 pl-3">
      {room.place.setpoint ? say.noClimate : say.noAirAtAll}
    </p>{/if}
</section>
