<script lang="ts">
  // A piece that never hung here goes on the shelf: what it is, about how long it dried, what it weighs.
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { keys, lineQuery } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import Pick from '../../forms/Pick.svelte';
  import When from '../../forms/When.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import { OutsideForm } from './outsideform.svelte';
  import Rooms from './Rooms.svelte';
  import Taps from './Taps.svelte';

  const say = words.rest.outside;
  const client = useQueryClient();
  const line = createQuery(lineQuery);
  const form = new OutsideForm();
  const pairs = <T extends string>(named: Record<T, string>): [T, string][] =>
    Object.entries(named) as [T, string][];

  async function go(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const answer = await form.go();
    if (!answer) return;
    session.say(say.done(answer.card.tag));
    for (const queryKey of [keys.rest, keys.line, keys.today]) void client.invalidateQueries({ queryKey });
    void navigate('/rest/:id', { params: { id: String(answer.card.id) } });
  }
</script>

<svelte:head><title>{say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="rest" />{/if}
  <main class="overflow-y-auto px-5 pt-3 pb-12">
    <Rooms here="shelf" />
    <h1 class="font-tag mt-3 text-3xl font-bold">{say.title}</h1>
    <p class="quiet">{say.intro}</p>
    <form class="mt-3 max-w-2xl" aria-label={say.title} onsubmit={go}>
      <div class="cells">
        <div class="wide"><Field label={say.product} bind:value={form.product} /></div>
        <Pick
          label={say.kind}
          options={pairs(words.kinds)}
          bind:value={form.kind}
          onchange={() => form.takeKind()}
        />
        <Pick label={say.shape} options={pairs(words.shapes)} bind:value={form.shape} />
        <Field label={say.across} numeric bind:value={form.across} />
        <Field label={say.weeks} numeric bind:value={form.weeks} />
        <Field label={say.gross} numeric bind:value={form.gross} />
        <Field label={say.start} hint={say.ifKnown} numeric bind:value={form.start} />
        <Field label={say.tag} hint={say.tagHint} bind:value={form.tag} />
        <Field label={say.lot} hint={say.ifKnown} bind:value={form.lot} />
      </div>
      <div class="mt-2"><Taps name={say.bag} taps={words.rest.bags} bind:value={form.bag} /></div>
      <div class="cells mt-2">
        <label class="block">
          <span class="text-sm font-semibold">{say.place}</span>
          <select class="select min-h-11 w-full text-base" bind:value={form.place}>
            <option value={0}>{say.noPlace}</option>
            {#each line.data?.places ?? [] as place (place.id)}<option value={place.id}>{place.name}</option
              >{/each}
          </select>
        </label>
        <Field label={say.note} bind:value={form.note} />
      </div>
      <When when={form.when} />
      {#if form.question}<p class="border-warning border-l-4 pl-3 first-letter:uppercase" role="alert">
          {form.question}
        </p>{/if}
      {#if form.problem}<p class="text-error first-letter:uppercase" role="alert">{form.problem}</p>{/if}
      <button class="btn btn-primary btn-lg mt-2" disabled={form.busy}
        >{form.question ? say.anyway : say.go}</button
      >
    </form>
    <p class="quiet mt-4 text-sm">{words.rest.caution}</p>
  </main>
</div>

<style>
  .cells {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    align-items: end;
    gap: 0.6rem 0.9rem;
  }
  .wide {
    grid-column: span 2;
  }
</style>
