<script lang="ts">
  // The Hang station: the room as it is, and beside it a piece, the form, or a file.
  // Long, since it joins room, panel, hand and keys, which share what is chosen; each has a component of
  // its own.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';

  import { type Schema } from '../../api/client';
  import { undo } from '../../api/undo';
  import { keys, lineQuery, pieceQuery, roomQuery } from '../../api/queries';
  import Keys from '../../keys/Keys.svelte';
  import { standOn } from '../../keys/focus';
  import { isForThePage, underDialog } from '../../keys/typing';
  import { inAddress, intoAddress } from '../../shell/address';
  import { keepRound } from '../../shell/connection.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate, route } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import { HangForm } from './hangform.svelte';
  import { type Carried, hand } from './hand.svelte';
  import Hands from './Hands.svelte';
  import EmptyRoom from './EmptyRoom.svelte';
  import HangFoot from './HangFoot.svelte';
  import HangSheet from './HangSheet.svelte';
  import ImportSheet from './ImportSheet.svelte';
  import type { Layer } from './label';
  import { type Direction, firstFreeHook, neighbour } from './neighbours';
  import PieceList from './PieceList.svelte';
  import PiecePanel from './PiecePanel.svelte';
  import Room from './Room.svelte';
  import RoomHead from './RoomHead.svelte';

  const placeId = $derived(Number(route.params.place));
  const client = useQueryClient();
  const line = createQuery(() => lineQuery());
  const room = createQuery(() => ({ ...roomQuery(placeId), enabled: Number.isFinite(placeId) }));

  let chosen = $state<number | null>(null);
  let beside = $state<'piece' | 'hang' | 'import'>('piece');
  let layer = $state<Layer>('days');
  let asList = $state(false);
  let showKeys = $state(false);
  let panel = $state<HTMLElement>();
  let find = $state('');
  let form = $state<HangForm | null>(null);
  /** Keys of a weight that were struck while the piece was still on its way. */
  let early = $state<string | null>(null);

  const piece = createQuery(() => ({ ...pieceQuery(chosen ?? 0), enabled: chosen !== null }));
  const now = $derived(line.data ? new Date(line.data.now).getTime() : Date.now());
  const pieces = $derived(room.data?.pieces ?? []);
  const found = $derived(
    find.trim()
      ? pieces.filter((c) => `${c.tag} ${c.product}`.toLowerCase().includes(find.trim().toLowerCase()))
      : pieces,
  );

  $effect(() => {
    if (Number.isFinite(placeId)) void keepRound(placeId);
  });
  /** What is chosen stands in the address; a paper tag's code leads here too. */
  function readAddress(): void {
    chosen = Number(inAddress('piece')) || null;
    const named = inAddress('layer');
    layer = named !== null && named in words.hang.layers ? (named as Layer) : 'days';
    asList = inAddress('view') === 'list';
    beside = 'piece';
  }
  $effect(() => {
    void placeId;
    readAddress();
  });
  $effect(() => intoAddress({ layer: layer === 'days' ? null : layer, view: asList ? 'list' : null }, false));

  /** A piece as it is now, or null where it has to be asked for anew: its dates are being made. */
  function refresh(answer: Schema['PieceOut'] | null): void {
    if (answer) client.setQueryData(keys.piece(answer.card.id), answer);
    else void client.invalidateQueries({ queryKey: keys.pieces });
    void client.invalidateQueries({ queryKey: keys.rooms });
    void client.invalidateQueries({ queryKey: keys.line });
    void client.invalidateQueries({ queryKey: keys.told });
    void client.invalidateQueries({ queryKey: keys.waiting });
    void client.invalidateQueries({ queryKey: keys.mendings });
    if (answer) void client.invalidateQueries({ queryKey: keys.pieces, refetchType: 'none' });
  }
  function pick(id: number | null): void {
    intoAddress({ piece: id === null ? null : String(id) }, chosen === null && id !== null);
    chosen = id;
    beside = 'piece';
    hand.holds = null;
    early = null;
  }
  async function openForm(rodId?: number, hook?: number): Promise<void> {
    // a piece may have been hung a moment ago: the free hooks must be those of now
    if (room.isFetching) await room.refetch();
    if (!room.data) return;
    const free = firstFreeHook(room.data.rods, pieces);
    const made = new HangForm(placeId);
    made.rodId = rodId ?? free?.rod.id ?? 0;
    made.hook = hook ?? free?.hook ?? 0;
    if (piece.data && chosen !== null) made.like(piece.data.card, piece.data, pieces);
    form = made;
    beside = 'hang';
  }
  function toHook(at: Schema['HookRef']): void {
    const rod = room.data?.rods.find((one) => one.id === at.rod_id);
    const held = inHand();
    if (rod && held) void hand.put(held, rod, at.hook, moved);
  }
  function moved(answer: Schema['PieceOut'] | null): void {
    refresh(answer);
    if (answer === null) return;
    pick(answer.card.id);
    void tick().then(() => {
      panel?.scrollTo(0, 0); // where it hangs now, and its new date, stand at the top
      const shown = panel?.querySelector('article');
      if (shown) standOn(shown);
    });
  }
  /** The chosen piece as one that can be carried. */
  function inHand(): Carried | null {
    if (!piece.data || piece.data.card.life.kind === 'gone') return null;
    return { id: piece.data.card.id, tag: piece.data.card.tag, hangs: piece.data.hangs };
  }
  function drag(card: Schema['PieceCard'] | null): void {
    hand.holds = card && { id: card.id, tag: card.tag, hangs: true };
  }
  function free(rod: Schema['RodOut'], hook: number): void {
    if (hand.holds) void hand.put(hand.holds, rod, hook, moved);
    else void openForm(rod.id, hook);
  }
  function tookDown(answer: Schema['PieceOut']): void {
    refresh(answer);
    session.say(words.life.takeDown.done(answer.card.tag), async () => {
      await undo(answer.made);
      refresh(null);
    });
  }
  function hung(answer: Schema['PieceOut']): void {
    refresh(answer);
    pick(answer.card.id);
    session.say(words.piece.hung(answer.card.tag));
  }
  function imported(done: Schema['ImportDone']): void {
    void client.invalidateQueries();
    beside = 'piece';
    session.say(words.imports.done(done.rows_new));
  }
  function back(): void {
    if (hand.holds) hand.holds = null;
    else if (beside !== 'piece') beside = 'piece';
    else pick(null);
  }
  function key(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      if (underDialog()) return;
      (document.activeElement as HTMLElement | null)?.blur();
      back();
      return;
    }
    if (!isForThePage(event)) return;
    const does: Record<string, () => void> = {
      w: beginWeighing,
      r: () => void navigate('/hang/:place/round', { params: { place: String(placeId) } }),
      h: () => void openForm(),
      b: () => (beside = 'import'),
      m: () => (hand.holds = hand.holds ? null : inHand()),
      v: () => (asList = !asList),
      '?': () => (showKeys = !showKeys),
    };
    if (early !== null && /^[\d.,]$/.test(event.key)) {
      early += event.key;
    } else if (/^\d$/.test(event.key)) {
      document.getElementById('weigh')?.focus();
    } else if (event.key.startsWith('Arrow') && !asList) {
      event.preventDefault();
      const next = neighbour(pieces, chosen, event.key as Direction);
      if (next !== null) {
        pick(next);
        document.querySelector<HTMLElement>(`[data-piece="${next}"]`)?.focus();
      }
    } else if (does[event.key]) {
      event.preventDefault();
      does[event.key]?.();
    }
  }
  function beginWeighing(): void {
    const box = document.getElementById('weigh');
    if (box) box.focus();
    else if (chosen !== null) early = '';
    else pick(neighbour(pieces, null, 'ArrowRight'));
  }
  const sheetOpen = $derived(!hand.holds && (beside !== 'piece' || chosen !== null));
  const narrow = new MediaQuery('max-width: 900px');
  /** On a narrow screen the panel lies over the room, which is then out of reach of keys, too. */
  const covered = $derived(sheetOpen && narrow.current);
  $effect(() => {
    if (!covered) return;
    const from = untrack(() => chosen);
    if (panel && !panel.contains(document.activeElement)) standOn(panel);
    return () =>
      void tick().then(() => document.querySelector<HTMLElement>(`[data-piece="${from}"]`)?.focus());
  });
</script>

<svelte:window onkeydown={key} onpopstate={readAddress} />
<svelte:head><title>{room.data ? `${room.data.place.name} · Zymon` : 'Zymon'}</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} {placeId} />{/if}
  <div class="flex min-h-0 flex-1">
    <main class="min-w-0 flex-1 overflow-y-auto px-5 pt-3 pb-16 max-md:px-3" inert={covered}>
      {#if room.data}
        <RoomHead room={room.data} bind:layer bind:asList />
        {#if pieces.length === 0 && line.data}
          <EmptyRoom
            room={room.data}
            line={line.data}
            onhang={() => void openForm()}
            onimport={() => (beside = 'import')}
          />
        {/if}
        {#if asList}
          <PieceList pieces={found} {chosen} {now} onpick={pick} />
        {:else}
          <Room
            room={room.data}
            pieces={found}
            {chosen}
            moving={hand.holds !== null}
            {layer}
            {now}
            onpick={pick}
            onfree={free}
            ondrag={drag}
          />
        {/if}
      {:else if room.isError}
        <p class="text-error p-6 text-lg first-letter:uppercase" role="alert">{room.error.message}</p>
      {:else}
        <p class="quiet p-6">{words.loading}</p>
      {/if}
    </main>
    <aside bind:this={panel} class="panel" class:open={sheetOpen}>
      {#if beside === 'hang' && form && room.data}
        <HangSheet {form} room={room.data} onhung={hung} onclose={back} />
      {:else if beside === 'import' && room.data}
        <ImportSheet {placeId} placeName={room.data.place.name} ondone={imported} onclose={back} />
      {:else if chosen !== null && piece.data && piece.data.card.id === chosen}
        <PiecePanel
          piece={piece.data}
          shelf={room.data?.place.sort === 'household_fridge'}
          {now}
          moving={hand.holds !== null}
          {refresh}
          {early}
          onmove={() => (hand.holds = hand.holds ? null : inHand())}
          onhook={toHook}
          ondown={tookDown}
          onclose={back}
        />
      {:else if chosen !== null && piece.isError}
        <p class="text-error" role="alert">{piece.error.message}</p>
      {:else if chosen === null && room.data}
        <Hands room={room.data} onpick={pick} />
      {/if}
    </aside>
  </div>
  <HangFoot
    places={line.data?.places ?? []}
    {placeId}
    bind:find
    onhang={() => void openForm()}
    onimport={() => (beside = 'import')}
    onkeys={() => (showKeys = true)}
  />
</div>
{#if showKeys}<Keys onclose={() => (showKeys = false)} />{/if}

<style>
  .panel {
    width: 27rem;
    flex: none;
    overflow-y: auto;
    padding: 0.9rem 1.25rem 2rem;
    background: color-mix(in oklab, var(--paper), var(--color-base-100) 45%);
  }
  @media (max-width: 900px) {
    .panel {
      position: fixed;
      inset: 0 0 0 0;
      z-index: 30;
      width: auto;
      display: none;
      background: var(--color-base-100);
    }
    .panel.open {
      display: block;
    }
  }
</style>
