<script lang="ts">
  // Bring in a file: what was understood, what it would bring, what is faulty; then the go-ahead.
  // Long, since one file from choosing to bringing in; each question is a component of its own.
  import type { Schema } from '../../api/client';
  import { pastedTable } from '../../forms/pasted';
  import { takesFocus } from '../../keys/focus';
  import { dayRange, fullDay, percent } from '../../units/format';
  import { weightText } from '../../units/quantity';
  import { words } from '../../words';
  import FileAsks from './FileAsks.svelte';
  import FileDoubts from './FileDoubts.svelte';
  import FileRead from './FileRead.svelte';
  import { Importing } from './importing.svelte';

  interface Props {
    placeId: number;
    placeName: string;
    ondone: (done: Schema['ImportDone']) => void;
    onclose: () => void;
  }
  let { placeId, placeName, ondone, onclose }: Props = $props();
  // svelte-ignore state_referenced_locally
  const flow = new Importing(placeId);
  const shown = $derived(flow.preview);
  const say = words.imports;

  function chosen(files: FileList | null | undefined): void {
    const file = files?.[0];
    if (file) void flow.read(file);
  }
  async function confirm(): Promise<void> {
    const done = await flow.confirm();
    if (done) ondone(done);
  }
</script>

<section
  aria-label={say.title}
  onpaste={(event) => {
    const text = pastedTable(event);
    if (text) void flow.read(new File([text], say.pasted, { type: 'text/tab-separated-values' }));
  }}
  {@attach takesFocus}
>
  <div class="flex items-start justify-between">
    <h2 class="font-tag text-2xl font-bold">
      {say.title} <span class="quiet text-lg font-medium">· {placeName}</span>
    </h2>
    <button class="-mt-2 -mr-2 min-h-11 min-w-11 text-xl" aria-label={words.close} onclick={onclose}>✕</button
    >
  </div>
  <p class="quiet mt-1">{say.text}</p>
  <label
    class="drop mt-3"
    ondragover={(event) => event.preventDefault()}
    ondrop={(event) => {
      event.preventDefault();
      chosen(event.dataTransfer?.files);
    }}
  >
    <span class="btn btn-primary">{say.choose}</span>
    <span class="quiet max-sm:hidden">{say.drop}</span>
    <input
      type="file"
      class="sr-only"
      accept=".csv,.txt,.tsv,.json,.xlsx,.xls,.ods,text/csv,application/json"
      onchange={(event) => chosen(event.currentTarget.files)}
    />
  </label>
  {#if flow.problem}<p
      class="border-error text-error mt-3 border-l-4 pl-3 first-letter:uppercase"
      role="alert"
    >
      {flow.problem}
    </p>{/if}
  {#if flow.step === 'reading' || flow.step === 'storing'}
    <div class="mt-4 flex items-center gap-3" role="status">
      <progress class="progress w-40"></progress>{flow.step === 'reading' ? say.reading : say.storing}
      {#if flow.step === 'reading'}<button class="btn btn-sm min-h-11" onclick={() => flow.stop()}
          >{say.stop}</button
        >{/if}
    </div>
  {/if}
  {#if shown}
    <FileRead {shown} asking={flow.asking} onanew={() => (flow.anew = true)} />
    {#if flow.asking}
      <FileAsks {flow} />
    {:else}
      <h3 class="font-tag mt-3 text-lg font-semibold">{say.would}</h3>
      <ul>
        <li class="text-lg font-semibold" data-testid="new-rows">{say.newRows(shown.new)}</li>
        {#if shown.same}<li>{say.same(shown.same)}</li>{/if}
        {#if shown.conflict}<li class="text-warning">{say.conflict(shown.conflict)}</li>{/if}
        {#each shown.notes as note (note)}<li class="quiet">{note}</li>{/each}
      </ul>
      {#if shown.error_count}
        <div class="border-warning mt-3 border-l-4 pl-3">
          <p class="font-semibold">{say.faults(shown.error_count)}</p>
          <ul class="max-h-40 overflow-y-auto text-sm">
            {#each shown.errors as fault, i (i)}<li>
                <span class="quiet">{say.line(fault.line)}:</span>
                {fault.text}
              </li>{/each}
          </ul>
          <label class="mt-1 flex min-h-11 items-center gap-2"
            ><input type="checkbox" class="checkbox" bind:checked={flow.leaveOut} />{say.leaveOut}</label
          >
        </div>
      {/if}
      {#if shown.doubtful.length}<FileDoubts {flow} />{/if}
      {#if shown.forecasts.length && shown.file_now}
        <h3 class="font-tag mt-3 text-lg font-semibold">{say.asOf(fullDay(shown.file_now))}</h3>
        <table class="w-full text-sm">
          <tbody>
            {#each shown.forecasts as f (f.tag)}
              <tr class="border-base-300 border-b">
                <td class="font-tag py-1 font-semibold">{f.tag}</td>
                <td class="py-1 text-right">{percent(f.loss_percent)}</td>
                <td class="py-1 text-right"
                  >{f.target_weight_g === null ? '–' : weightText(f.target_weight_g)}</td
                >
                <td class="py-1 pl-3"
                  >{f.status === 'drying' && f.ready.p10 && f.ready.p90
                    ? dayRange(f.ready.p10, f.ready.p90)
                    : words.hang.states[f.status]}</td
                >
              </tr>
              {#each f.doubts as doubt (doubt)}<tr
                  ><td></td><td colspan="3" class="text-warning pb-1">{doubt}</td></tr
                >{/each}
            {/each}
          </tbody>
        </table>
      {/if}
      {#if shown.new === 0 && !shown.error_count && !shown.doubtful.length}<p
          class="text-warning mt-3 font-semibold"
        >
          {say.nothing}
        </p>{/if}
      <button
        class="btn btn-primary btn-lg mt-4 w-full"
        disabled={flow.blocked || flow.step === 'storing'}
        onclick={confirm}>{say.confirm}</button
      >
    {/if}
  {/if}
</section>

<style>
  .drop {
    display: flex;
    align-items: center;
    gap: 1rem;
    padding: 1rem;
    border: 1.5px dashed var(--paper-edge);
    cursor: pointer;
  }
  .drop:focus-within {
    outline: 2px solid var(--color-primary);
  }
</style>
