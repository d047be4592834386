<script lang="ts">
  // A piece becomes packs: what it weighs and what is in packs already, what stands against it, one form.
  import { untrack } from 'svelte';

  import { createQuery, useQueryClient } from '@tanstack/svelte-query';

  import { keys, lineQuery, packingQuery } from '../../api/queries';
  import { onTheScale } from '../../api/standins';
  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import When from '../../forms/When.svelte';
  import Line from '../../shell/Line.svelte';
  import { navigate, p, route } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { typedNumber } from '../../units/number';
  import { fieldText, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';
  import { PackForm } from './packform.svelte';
  import PackShape from './PackShape.svelte';
  import Taps from './Taps.svelte';

  const say = words.stock;
  const client = useQueryClient();
  const id = $derived(Number(route.params.id));
  const line = createQuery(lineQuery);
  const piece = createQuery(() => packingQuery(id));
  const found = $derived(piece.data);
  const there = $derived(found?.piece_id);
  let form = $state.raw<PackForm | null>(null);
  $effect(() => {
    form = there === undefined ? null : untrack(() => (found ? new PackForm(found) : null));
  });
  $effect(() => {
    void [form?.wrap, form?.keepAt];
    untrack(() => form?.followPeriod());
  });

  async function go(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const answer = await form?.go();
    if (!answer || !found) return;
    session.say(say.done(typedNumber(form?.number ?? '') ?? 1, found.tag));
    for (const queryKey of [keys.stock, keys.cut, keys.rest, keys.line, keys.today])
      void client.invalidateQueries({ queryKey });
    client.setQueryData(keys.packing(id), answer);
    form = new PackForm(answer);
  }
</script>

<svelte:head><title>{found ? say.packTitle(found.tag) : say.title} · Zymon</title></svelte:head>

<div class="flex h-full flex-col">
  {#if line.data}<Line line={line.data} placeId={null} station="rest" />{/if}
  <div class="station">
    <main>
      {#if found && form}
        <p class="quiet">
          {found.product} · {found.batch} ·
          <a class="underline underline-offset-4" href={p('/rest/stock')}>{say.title}</a>
        </p>
        <h1 class="font-tag text-3xl font-bold">{say.packTitle(found.tag)}</h1>
        <p>
          {found.usable_g === null
            ? say.unweighed
            : whole(say.usable(weightText(found.usable_g), weightText(found.packed_g)))}
        </p>
        <form class="mt-3 max-w-2xl" aria-label={say.pack} onsubmit={go}>
          <Taps name={say.rows.form} taps={say.forms} bind:value={form.form} />
          <Taps name={say.rows.wrap} taps={say.wraps} bind:value={form.wrap} />
          <Taps name={say.rows.keepAt} taps={say.keepAt} bind:value={form.keepAt} />
          <div class="mt-2 flex flex-wrap items-end gap-3">
            <div class="w-28"><Field label={say.number} numeric bind:value={form.number} /></div>
            <div class="w-36"><Field label={say.net} numeric bind:value={form.net} /></div>
            <Instrument
              kind="scale"
              simulate={() => onTheScale(id)}
              onvalue={(value) => form && (form.net = fieldText('mass', value))}
            />
            <div class="w-56">
              <Field
                label={say.period}
                hint={say.periodHint}
                numeric
                bind:value={form.period}
                onchange={() => form && (form.typed = true)}
              />
            </div>
          </div>
          {#if form.total !== null}<p class="quiet mt-1">= {weightText(form.total)}</p>{/if}
          {#if !found.has_ingredients}
            <p class="mt-2">{say.ingredientsWhy}</p>
            <Field label={say.ingredients} bind:value={form.ingredients} />
          {/if}
          <div class="mt-2 flex flex-wrap items-end gap-3">
            <label class="block">
              <span class="text-sm font-semibold">{say.place}</span>
              <select class="select min-h-11 w-full text-base" bind:value={form.place}>
                <option value={0}>{say.noPlace}</option>
                {#each line.data?.places ?? [] as place (place.id)}<option value={place.id}
                    >{place.name}</option
                  >{/each}
              </select>
            </label>
            <div class="min-w-40 flex-1"><Field label={say.note} bind:value={form.note} /></div>
          </div>
          <When when={form.when} />
          {#if form.question}<p class="border-warning border-l-4 pl-3 first-letter:uppercase" role="alert">
              {form.question}
            </p>{/if}
          {#if form.problem}<p class="text-error first-letter:uppercase" role="alert">{form.problem}</p>{/if}
          <button class="btn btn-primary btn-lg mt-1" disabled={form.busy}
            >{form.question ? say.keepAnyway : say.go}</button
          >
        </form>
      {:else if piece.isError}<p class="text-error" role="alert">{piece.error.message}</p>{/if}
    </main>
    <aside class="open">
      {#if found}
        {#if found.against.length}
          <h2 class="font-tag text-lg font-semibold">{say.against}</h2>
          <ul class="border-warning border-l-4 pl-3">
            {#each found.against.slice(0, 4) as one, i (i)}<li>{whole(said(one))}</li>{/each}
            {#if found.against.length > 4}<li class="quiet">
                {say.againstMore(found.against.length - 4)}
              </li>{/if}
          </ul>
        {/if}
        <p class="mt-2">{whole(found.keeps ? say.keeps[found.keeps] : say.keepsUnknown)}</p>
        <div class="mt-3 flex flex-wrap gap-3">
          {#each found.packs.filter((one) => one.left > 0) as one (one.id)}
            <button
              aria-label={say.left(one.left, one.number)}
              onclick={() => void navigate('/rest/stock/:id', { params: { id: String(one.id) } })}
              ><PackShape pack={one} /></button
            >
          {/each}
        </div>
        <p class="quiet mt-4 text-sm">{say.caution}</p>
      {/if}
    </aside>
  </div>
</div>
