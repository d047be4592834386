<script lang="ts">
  // A batch file, of this workshop or of another: read and judged, nothing of it is kept.
  import { api, take } from '../../api/client';
  import HurdleMark from '../../goods/HurdleMark.svelte';
  import { words } from '../../words';
  import { whole } from '../../words/said';
  import { figure, standing } from '../ledger/figures';
  import BookPage from './BookPage.svelte';

  const say = words.life.fileJudged;
  const ledger = words.ledger;
  const judge = (document: Record<string, unknown>) => take(api.POST('/api/judge', { body: document }));
  let found = $state<Awaited<ReturnType<typeof judge>> | null>(null);
  let problem = $state<string | null>(null);

  async function read(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (!file) return;
    found = problem = null;
    try {
      found = await judge(JSON.parse(await file.text()) as Record<string, unknown>);
    } catch (error) {
      problem = error instanceof SyntaxError ? say.notJson : (error as Error).message;
    }
  }
</script>

<BookPage title={say.title} hint={say.hint}>
  <label class="mt-3 block max-w-md">
    <span class="text-sm font-semibold">{say.pick}</span>
    <input
      type="file"
      accept="application/json,.json"
      class="file-input min-h-11 w-full"
      onchange={(event) => void read(event.currentTarget.files)}
    />
  </label>
  {#if problem}<p class="text-error mt-3 first-letter:uppercase" role="alert">{problem}</p>{/if}
  {#if found}
    <section class="mt-4 max-w-4xl" aria-label={found.id}>
      <h2 class="font-tag text-2xl font-semibold">{found.id}</h2>
      <p class="text-lg" class:text-success={found.ready} class:text-error={!found.ready}>
        {found.ready ? say.ready : say.notReady}
      </p>
      {#if found.use === 'cooked'}<p class="text-warning font-semibold">{ledger.cooked}</p>{/if}
      <p class="text-sm">{whole(found.check)} {ledger.law}</p>
      <ul class="mt-2">
        {#each found.hurdles as hurdle (hurdle.name)}
          <li class="border-base-300 flex gap-3 border-t py-2">
            <HurdleMark
              state={hurdle.state}
              cautious={hurdle.cautions.length > 0}
              signed={hurdle.signed !== null}
              known={hurdle.known}
            />
            <div>
              <p>
                <strong>{ledger.names[hurdle.name] ?? hurdle.name}</strong>
                <span class="quiet">{standing(hurdle)}</span>
                {figure(hurdle.value, hurdle.unit)}
                {#if hurdle.limit !== null}<span class="quiet text-sm"
                    >{ledger.limit(figure(hurdle.limit, hurdle.unit, 3))}</span
                  >{/if}
              </p>
              {#if hurdle.why}<p>
                  {whole(hurdle.why)}
                  {#if hurdle.settles}<span class="quiet">{whole(hurdle.settles)}</span>{/if}
                </p>{/if}
              {#each hurdle.cautions as caution (caution)}<p class="text-warning">
                  {whole(caution)}
                </p>{/each}
              {#if hurdle.pieces?.length}<p class="quiet text-sm">{hurdle.pieces.join(', ')}</p>{/if}
            </div>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</BookPage>
