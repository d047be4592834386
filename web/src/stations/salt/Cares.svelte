<script lang="ts">
  // What a batch in salt wants done again and again: one touch for all its pieces.
  import type { Schema } from '../../api/client';
  import { optionalAs } from '../../forms/typed';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import type { Card } from './saltdesk.svelte';

  type Kind = Schema['CareOut']['kind'];
  interface Props {
    cards: Card[];
    now: number;
    busy: boolean;
    ondone: (kind: Kind, cards: Card[], liquid: number | null, when: Moment) => Promise<void>;
  }
  let { cards, now, busy, ondone }: Props = $props();
  const say = words.salt;
  let liquid = $state('');
  const when = new Moment();

  const kinds = $derived([...new Set(cards.flatMap((c) => c.care.map((k) => k.kind)))]);
  const rows = $derived(
    kinds.map((kind) => {
      const wanting = cards.filter((c) => c.care.some((k) => k.kind === kind));
      const cares = wanting.flatMap((c) => c.care.filter((k) => k.kind === kind));
      const due = cares.map((k) => k.due).sort()[0] ?? '';
      const late = cares.some((k) => new Date(k.latest).getTime() < now);
      const open = cares.some((k) => new Date(k.due_from).getTime() <= now);
      const missed = Math.max(...cares.map((k) => k.missed));
      const last = cares.flatMap((k) => (k.last === null ? [] : [k.last])).sort()[0] ?? null;
      return { kind, wanting, due, late, open, missed, last, cost: cares[0]?.cost };
    }),
  );
  async function done(kind: Kind, wanting: Card[]): Promise<void> {
    try {
      const grams = kind === 'drain' ? optionalAs('liquid', liquid) : null;
      await ondone(kind, wanting, grams === null ? null : grams / wanting.length, when);
      liquid = '';
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#if rows.length}
  <ul class="cares">
    {#each rows as row (row.kind)}
      <li class:open={row.open}>
        <button class="btn btn-sm min-h-11" disabled={busy} onclick={() => void done(row.kind, row.wanting)}
          >{say.care[row.kind]}</button
        >
        {#if row.kind === 'drain'}
          <input
            class="word grams"
            inputmode="decimal"
            placeholder={say.anew.liquid}
            aria-label={say.anew.liquid}
            bind:value={liquid}
          />
        {/if}
        <span class="text-sm">
          {#if row.open}
            <strong class:text-warning={row.late}
              >{say.careDue(say.careDo[row.kind].toLowerCase(), dayAndTime(row.due))}</strong
            >
            {#if row.missed}<span class="quiet"
                >· {words.today.last(row.last && dayAndTime(row.last))}: {row.cost
                  ? said(row.cost)
                  : ''}</span
              >{/if}
          {:else}
            <span class="quiet">{say.careDue(say.careDo[row.kind].toLowerCase(), dayAndTime(row.due))}</span>
          {/if}
        </span>
      </li>
    {/each}
  </ul>
  <When {when} label={words.today.doneAt} />
{/if}

<style>
  .cares {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.6rem;
    padding: 0.3rem 0 0.1rem;
  }
  li {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    max-width: 100%;
  }
  .grams {
    width: 5rem;
    min-width: 0;
  }
  li.open .btn {
    border-color: var(--color-primary);
  }
</style>
