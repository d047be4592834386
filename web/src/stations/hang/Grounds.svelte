<script lang="ts">
  // What the date rests on, in one bar and two sentences, and what would narrow it most.
  import { createQuery } from '@tanstack/svelte-query';

  import { explainedQuery } from '../../api/queries';
  import { spanUnit } from '../../units/format';
  import { numberText } from '../../units/number';
  import { words } from '../../words';

  let { piece }: { piece: number } = $props();
  const say = words.grounds;
  const query = createQuery(() => explainedQuery(piece));
  const found = $derived(query.data);
  const parts = $derived(
    found
      ? [
          { key: 'own', share: found.own_share, text: say.own(found.own_weighings) },
          { key: 'mates', share: found.mates_share, text: say.mates(found.mates_weighed) },
          { key: 'prior', share: found.prior_share, text: say.prior },
        ].filter((part) => part.share >= 0.015)
      : [],
  );
</script>

{#if found}
  <section class="mt-5" aria-label={say.title}>
    <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
    <div class="mt-1 flex h-3 gap-0.5" aria-hidden="true">
      {#each parts as part (part.key)}
        <span class="grounds {part.key}" style:flex-grow={part.share}></span>
      {/each}
    </div>
    <p class="mt-1 flex flex-wrap gap-x-4">
      {#each parts as part (part.key)}
        <span class="md:whitespace-nowrap">
          <span class="grounds {part.key} mr-1 inline-block h-3 w-3 align-baseline" aria-hidden="true"
          ></span>{part.text}
          <strong>{numberText(part.share * 100, 0)}&nbsp;%</strong>
        </span>
      {/each}
    </p>
    {#if found.window_days !== null}
      <p class="mt-1" data-testid="narrowing">
        {#if found.air_share > 0.3}{say.air(numberText(found.air_share * 100, 0))}{/if}
        {#each found.narrowing.slice(0, 2) as help (help.by)}
          {@const [unit, inDay] = spanUnit(found.window_days)}
          {say.helps[help.by](
            say.span[unit](numberText(found.window_days * inDay, 0)),
            numberText(help.window_days * inDay, 0),
          )}
        {:else}
          {say.nothingHelps}
        {/each}
      </p>
    {/if}
  </section>
{/if}

<style>
  .grounds {
    min-width: 3px;
    border-radius: 2px;
  }
  .own {
    background: var(--color-primary);
  }
  .mates {
    background: color-mix(in oklab, var(--color-primary) 45%, var(--paper));
  }
  /* what is only usual is hatched: nobody has seen it of this piece */
  .prior {
    background: repeating-linear-gradient(115deg, var(--string) 0 2px, transparent 2px 5px);
    outline: 1px solid var(--string);
    outline-offset: -1px;
  }
</style>
