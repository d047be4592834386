<script lang="ts">
  // Inspection by taps, advice with this piece's own evidence, what was done; hold and release.
  // Long, since the taps and what has been tapped, which correct each other.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { head } from '../../api/entry';
  import { keys } from '../../api/queries';
  import Reason from '../../forms/Reason.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';
  import Photos from './Photos.svelte';

  let { piece }: { piece: number } = $props();
  const say = words.hook;
  const client = useQueryClient();
  const key = $derived(['hook', piece]);
  const found = createQuery(() => ({
    queryKey: key,
    queryFn: () => take(api.GET('/api/pieces/{piece_id}/hook', { params: { path: { piece_id: piece } } })),
  }));
  type Row = keyof typeof say.rows;
  let taps = $state<Partial<Record<Row, string>>>({});
  let flags = $state<Record<keyof typeof say.flags, boolean>>({
    sag: false,
    cracks: false,
    salt_spots: false,
  });
  const moment = new Moment();
  let open = $state(false);
  let asking = $state<'hold' | 'release' | null>(null);
  let striking = $state<number | null>(null);

  async function note(kind: Schema['HangEventIn']['kind'], note = ''): Promise<boolean> {
    const found = kind === 'inspect' ? ({ ...taps, ...flags } as Schema['Found']) : null;
    const body: Schema['HangEventIn'] = { ...head(moment), pieces: [piece], kind, note, found };
    try {
      client.setQueryData(key, await take(api.POST('/api/hook-events', { body })));
      moment.clear();
      void client.invalidateQueries({ queryKey: keys.today });
      return true;
    } catch (error) {
      session.complain(error);
      return false;
    }
  }
  async function inspect(): Promise<void> {
    if (!(await note('inspect'))) return;
    open = false;
    taps = {};
    flags = { sag: false, cracks: false, salt_spots: false };
  }
  async function answer(reason: string): Promise<void> {
    if (asking && (await note(asking, reason))) asking = null;
  }
  async function strike(reason: string): Promise<void> {
    if (striking === null) return;
    try {
      client.setQueryData(
        key,
        await take(
          api.POST('/api/hook-events/{event_id}/strike', {
            params: { path: { event_id: striking } },
            body: { reason, by: session.who },
          }),
        ),
      );
    } catch (error) {
      session.complain(error);
    }
    striking = null;
  }
  const told = (found: Schema['Found'] | null): string =>
    found === null
      ? ''
      : [
          ...(Object.keys(say.rows) as Row[])
            .filter((row) => found[row])
            .map(
              (row) =>
                `${say.rows[row].name} ${(say.rows[row].taps as Record<string, string>)[found[row] ?? ''] ?? ''}`,
            ),
          ...(Object.keys(say.flags) as (keyof typeof say.flags)[])
            .filter((flag) => found[flag])
            .map((flag) => say.flags[flag]),
        ].join(', ');
</script>

<section class="mt-5" aria-label={say.title}>
  <div class="flex items-baseline justify-between">
    <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
    <button class="min-h-11 underline underline-offset-4" aria-expanded={open} onclick={() => (open = !open)}
      >{say.inspect}</button
    >
  </div>
  {#if found.data?.held}<p class="text-error font-semibold">{say.isHeld}</p>{/if}
  {#if open}
    <p class="quiet text-sm">{say.tap}</p>
    {#each Object.entries(say.rows) as [row, of] (row)}
      {#if row !== 'mould_how' || (taps.mould && taps.mould !== 'none')}
        <div class="taps" role="group" aria-label={of.name}>
          <span class="quiet">{of.name}</span>
          {#each Object.entries(of.taps) as [value, name] (value)}
            <button
              type="button"
              class="tap"
              aria-pressed={taps[row as Row] === value}
              onclick={() => (taps = { ...taps, [row]: taps[row as Row] === value ? undefined : value })}
              >{name}</button
            >
          {/each}
        </div>
      {/if}
    {/each}
    <div class="taps">
      <span></span>
      {#each Object.entries(say.flags) as [flag, name] (flag)}
        <button
          type="button"
          class="tap"
          aria-pressed={flags[flag as keyof typeof flags]}
          onclick={() => (flags[flag as keyof typeof flags] = !flags[flag as keyof typeof flags])}
          >{name}</button
        >
      {/each}
    </div>
    <button class="btn btn-primary mt-2 min-h-11" onclick={() => void inspect()}>{say.note}</button>
  {/if}
  <When when={moment} />
  {#each found.data?.advice ?? [] as advice (advice.what.code)}
    <p
      class="mt-1"
      class:text-error={advice.act === 'hold' || advice.act === 'discard'}
      class:text-warning={advice.act === 'mend'}
    >
      <strong>{say.acts[advice.act]}:</strong>
      {said(advice.what)}
      {#if advice.because.length}<span class="quiet">({advice.because.map(said).join('; ')})</span>{/if}
    </p>
  {/each}
  <div class="mt-2 flex flex-wrap gap-2">
    {#each ['turn', 'wipe', 'wrap', 'patch'] as const as kind (kind)}
      <button class="btn btn-sm min-h-11" onclick={() => void note(kind)}>{say.did[kind]}</button>
    {/each}
    <button
      class="btn btn-sm min-h-11"
      onclick={() => {
        asking = found.data?.held ? 'release' : 'hold';
      }}>{found.data?.held ? say.release : say.hold}</button
    >
  </div>
  <Photos {piece} />
  {#if asking}
    <Reason
      label={say.holdWhy}
      button={asking === 'hold' ? say.hold : say.release}
      onanswer={(reason) => void answer(reason)}
    />
  {/if}
  <ul class="mt-2 text-sm">
    {#each found.data?.events ?? [] as event (event.id)}
      <li class="flex items-baseline gap-2 py-0.5">
        <span class="quiet w-28 flex-none">{dayAndTime(event.at)}</span>
        <span class="flex-1" class:line-through={event.struck_reason !== null}
          ><strong class="font-semibold">{say.did[event.kind]}</strong>
          {told(event.found)}
          {event.note} <span class="quiet">{event.by}</span></span
        >
        {#if event.struck_reason === null}
          <button class="quiet min-h-8 underline" onclick={() => (striking = event.id)}>{say.strike}</button>
        {:else}<span class="quiet">{say.struck(event.struck_reason)}</span>{/if}
      </li>
    {/each}
  </ul>
  {#if striking !== null}
    <Reason label={say.strikeWhy} button={say.strike} onanswer={(reason) => void strike(reason)} />
  {/if}
  <p class="quiet mt-1 text-sm">{say.doubt}</p>
</section>

<style>
  .taps {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem;
    margin-top: 0.35rem;
  }
  .taps > span {
    width: 4.2rem;
  }
  .tap {
    min-height: 44px;
    padding: 0 0.7rem;
    border: 1px solid var(--color-base-300);
    border-radius: 4px;
    background: var(--color-base-100);
    cursor: pointer;
  }
  .tap[aria-pressed='true'] {
    border-color: var(--color-primary);
    background: var(--color-primary);
    color: var(--color-primary-content);
  }
</style>
