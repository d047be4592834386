<script lang="ts">
  // Where a piece hung, from when to when; the last move can be taken back, on record.
  import type { Schema } from '../../api/client';
  import { undo } from '../../api/undo';
  import Reason from '../../forms/Reason.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import type { Refresh } from './weigh.svelte';

  let { piece, refresh }: { piece: Schema['PieceOut']; refresh: Refresh } = $props();
  const say = words.stays;
  let asking = $state(false);
  const standing = $derived(piece.hangings.filter((one) => one.struck_reason === null));
  const last = $derived(standing.length > 1 && piece.hangs ? standing.at(-1) : undefined);

  async function takeBack(reason: string): Promise<void> {
    if (!last) return;
    try {
      await undo([{ what: 'hanging', id: last.id }], reason);
      asking = false;
      refresh(null);
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<h4 class="font-tag mt-3 font-semibold">{say.title}</h4>
<ul>
  {#each piece.hangings as one (one.id)}
    <li
      class="border-base-300 flex min-h-11 flex-wrap items-center gap-x-3 border-b"
      class:quiet={one.struck_reason}
    >
      <span class="flex-1" class:line-through={one.struck_reason}>{say.at(one.place, one.rod, one.hook)}</span
      >
      <span class="quiet text-sm" class:line-through={one.struck_reason}
        >{dayAndTime(one.from_at)} – {one.to_at ? dayAndTime(one.to_at) : ''}</span
      >
      {#if one.struck_reason}<span class="quiet w-full pb-1 text-sm">{one.struck_reason}</span>{/if}
      {#if one === last && !asking}
        <button class="btn btn-ghost btn-sm min-h-9" onclick={() => (asking = true)}>{say.takeBack}</button>
      {/if}
    </li>
  {/each}
</ul>
{#if asking}<Reason label={say.why} button={say.takeBack} onanswer={(reason) => void takeBack(reason)} />{/if}
