<script lang="ts">
  // Hang a piece: the tag fills in while the measures are typed.
  // Long, since one form; its fields depend on each other from the first to the last.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { keys } from '../../api/queries';
  import Field from '../../forms/Field.svelte';
  import Instrument from '../../forms/Instrument.svelte';
  import Pick from '../../forms/Pick.svelte';
  import When from '../../forms/When.svelte';
  import { takesFocus } from '../../keys/focus';
  import { dayRange, longDay } from '../../units/format';
  import { fieldText, weightText } from '../../units/quantity';
  import Assumed from './Assumed.svelte';
  import { words } from '../../words';
  import type { HangForm } from './hangform.svelte';

  interface Props {
    form: HangForm;
    room: Schema['Room'];
    onhung: (answer: Schema['PieceOut']) => void;
    onclose: () => void;
  }
  let { form, room, onhung, onclose }: Props = $props();

  const waiting = createQuery(() => ({
    queryKey: keys.waiting,
    queryFn: () => take(api.GET('/api/bench/waiting')),
  }));
  const options = <T extends string>(names: Record<T, string>): [T, string][] =>
    Object.entries(names) as [T, string][];
  const rod = $derived(room.rods.find((r) => r.id === form.rodId));
  const taken = $derived(new Set(room.pieces.filter((c) => c.rod === rod?.number).map((c) => c.hook)));
  const free = $derived(
    Array.from({ length: rod?.hooks ?? 0 }, (_, i) => i + 1).filter((hook) => !taken.has(hook)),
  );
  const where = $derived(form.problem?.where ?? '');

  const asked = $derived(form.problem?.code === 'doubtful');
  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const answer = await form.hang(asked);
    if (answer) onhung(answer);
  }
  function changeRod(): void {
    if (!free.includes(form.hook)) form.hook = free[0] ?? 0;
    form.changed();
  }
</script>

<form onsubmit={submit} aria-label={words.form.hangTitle} {@attach takesFocus}>
  <div class="flex items-start justify-between">
    <h2 class="font-tag text-2xl font-bold">{words.form.hangTitle}</h2>
    <button
      type="button"
      class="-mt-2 -mr-2 min-h-11 min-w-11 text-xl"
      aria-label={words.close}
      onclick={onclose}>✕</button
    >
  </div>
  {#if waiting.data?.length}
    <label class="mt-1 block">
      <span class="text-sm font-semibold">{words.form.waiting(waiting.data.length)}</span>
      <select
        class="select min-h-11 w-full text-base"
        value=""
        onchange={(e) => {
          const made = waiting.data.find((one) => one.tag === e.currentTarget.value);
          if (made) form.takeWaiting(made);
        }}
      >
        <option value="">–</option>
        {#each waiting.data as made (made.tag)}
          <option value={made.tag}
            >{made.tag} · {made.product} · {made.gross_g === null
              ? words.done.notWeighed
              : weightText(made.gross_g)}</option
          >
        {/each}
      </select>
    </label>
  {/if}
  <div class="mt-2 grid grid-cols-2 gap-x-3 gap-y-2.5">
    <div class="col-span-2">
      <Field label={words.form.product} bind:value={form.product} required fault={where === 'product'} />
    </div>
    <Pick
      label={words.form.kind}
      bind:value={form.kind}
      options={options(words.kinds)}
      onchange={() => form.takeKind()}
    />
    <Pick
      label={words.form.shape}
      bind:value={form.shape}
      options={options(words.shapes)}
      onchange={() => form.changed()}
    />
    <Pick
      label={words.form.casing}
      bind:value={form.casing}
      options={options(words.casings)}
      onchange={() => form.changed()}
    />
    <When when={form.when} label={words.form.hungOn} onchange={() => form.changed()} />
    <Field label={words.form.batch} bind:value={form.batch} required fault={where === 'batch_code'} />
    <Field label={words.form.tag} bind:value={form.tag} required fault={where === 'tag'} />
    <Pick
      label={words.done.by}
      bind:value={form.doneBy}
      options={options(words.done.ways)}
      onchange={() => form.changed()}
    />
    {#if form.doneBy === 'days'}
      <Field
        label={words.done.days}
        numeric
        bind:value={form.days}
        required
        fault={where === 'done_days'}
        onchange={() => form.changed()}
      />
    {:else if form.doneBy === 'weight'}
      <Field
        label={words.form.loss}
        numeric
        bind:value={form.loss}
        required
        fault={where === 'target_loss_percent'}
        onchange={() => form.changed()}
      />
    {/if}
    <Pick
      label={words.done.use}
      bind:value={form.use}
      options={options(words.done.uses)}
      onchange={() => form.changed()}
    />
    <p class="quiet col-span-2 -mt-1 text-sm">
      {words.done.means[form.doneBy]}
      {#if form.use === 'cooked'}{words.done.cooked}{/if}
    </p>
    <Field
      label={form.doneBy === 'weight' ? words.form.start : words.done.startOptional}
      numeric
      bind:value={form.start}
      required={form.doneBy === 'weight'}
      fault={where === 'start_weight_g'}
      onchange={() => form.changed()}
    />
    <Instrument kind="scale" cable onvalue={(value) => (form.start = fieldText('mass', value))} />
    <Field
      label={words.form.tare}
      numeric
      hint={words.form.tareHint}
      bind:value={form.tare}
      fault={where === 'tare_g'}
      onchange={() => form.changed()}
    />
    {#if form.shape === 'slab'}
      <Field
        label={words.form.thickness}
        numeric
        hint={words.form.optional}
        bind:value={form.thickness}
        fault={where === 'thickness_mm'}
        onchange={() => form.changed()}
      />
    {:else}
      <Field
        label={words.form.diameter}
        numeric
        hint={words.form.optional}
        bind:value={form.diameter}
        fault={where === 'diameter_mm'}
        onchange={() => form.changed()}
      />
    {/if}
    <Field
      label={words.form.length}
      numeric
      hint={words.form.optional}
      bind:value={form.length}
      fault={where === 'length_mm'}
      onchange={() => form.changed()}
    />
    {#if form.kind === 'belly' || (form.kind === 'whole_muscle' && form.shape === 'slab')}
      <Pick
        label={words.done.skin}
        bind:value={form.skin}
        options={options(words.done.yesNo)}
        onchange={() => form.changed()}
      />
    {:else if form.kind === 'ham'}
      <Pick
        label={words.done.bone}
        bind:value={form.bone}
        options={options(words.done.yesNo)}
        onchange={() => form.changed()}
      />
    {/if}
    <div class="grid grid-cols-2 gap-3">
      <Field
        label={words.form.fat}
        numeric
        bind:value={form.fat}
        fault={where === 'fat_percent'}
        onchange={() => form.changed()}
      />
      <Field
        label={words.form.salt}
        numeric
        bind:value={form.salt}
        fault={where === 'salt_percent'}
        onchange={() => form.changed()}
      />
    </div>
    {#if room.rods.length && free.length + taken.size > 0}
      <label class="block">
        <span class="text-sm font-semibold">{words.form.rod}</span>
        <select class="select min-h-11 w-full text-base" bind:value={form.rodId} onchange={changeRod}>
          {#each room.rods as r (r.id)}<option value={r.id}>{r.number}</option>{/each}
        </select>
      </label>
      <label class="block">
        <span class="text-sm font-semibold">{words.form.hook}</span>
        <select class="select min-h-11 w-full text-base" bind:value={form.hook}>
          {#each free as hook (hook)}<option value={hook}>{hook}</option>{/each}
        </select>
      </label>
    {/if}
  </div>

  <div class="sheet-foot">
    {#if form.problem}<p class="text-error first-letter:uppercase" role="alert">
        {form.problem.message}
      </p>{/if}
    {#if free.length === 0}<p class="text-warning">{words.form.full}</p>{/if}
    <div class="tag-sheet" aria-live="polite">
      {#if form.preview}
        {#if form.preview.tag_g !== null}
          <span>
            <span class="quiet block text-sm">{words.form.done}</span>
            <span class="block text-4xl font-bold" data-testid="target-weight"
              >{weightText(form.preview.tag_g)}</span
            >
          </span>
        {/if}
        <span>
          {#if form.preview.feel_from && form.preview.feel_to}
            <span class="block font-semibold" data-testid="worth-feeling"
              >{words.done.worthFrom(longDay(form.preview.feel_from))}</span
            >
            {#if form.doneBy === 'feel'}<span class="quiet block text-sm"
                >{dayRange(form.preview.feel_from, form.preview.feel_to)}</span
              >{/if}
          {:else if form.preview.ready.p50 && form.preview.ready.p10 && form.preview.ready.p90}
            <span class="block font-semibold">{words.piece.readyAbout(longDay(form.preview.ready.p50))}</span>
            <span class="quiet block text-sm">
              {dayRange(form.preview.ready.p10, form.preview.ready.p90)}{#if form.preview.weeks}, {words.form.weeks(
                  form.preview.weeks,
                )}{/if}
            </span>
          {:else}
            <span class="text-warning block">{words.piece.stalled}</span>
          {/if}
        </span>
      {:else}
        <span class="quiet block py-3">{words.form.tagWaits}</span>
      {/if}
    </div>
    {#if form.preview}<Assumed assumed={form.preview.assumed} reaches={form.preview.reaches} brief />{/if}
    <button class="btn btn-primary btn-lg w-full" disabled={form.busy || free.length === 0}
      >{asked ? words.form.hangAllTheSame : words.form.hang}</button
    >
  </div>
</form>

<style>
  .sheet-foot {
    position: sticky;
    bottom: -2rem;
    margin: 0.8rem -1.25rem 0;
    padding: 0.6rem 1.25rem 1rem;
    display: flex;
    flex-direction: column;
    gap: 0.6rem;
    background: color-mix(in oklab, var(--paper), var(--color-base-100) 45%);
    border-top: 1px solid var(--color-base-300);
  }
  .tag-sheet {
    display: flex;
    align-items: center;
    gap: 1.2rem;
    padding: 0.5rem 1.4rem;
    background: var(--paper);
    clip-path: polygon(14px 0, calc(100% - 14px) 0, 100% 14px, 100% 100%, 0 100%, 0 14px);
    font-family: var(--font-tag);
    box-shadow: inset 0 -2px 0 var(--paper-edge);
  }
</style>
