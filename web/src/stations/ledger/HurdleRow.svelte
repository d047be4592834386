<script lang="ts">
  // One hurdle: how it stands, its value beside the limit it was held against, why, and what would settle it.
  import type { Schema } from '../../api/client';
  import HurdleMark from '../../goods/HurdleMark.svelte';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import { said, textOf, whole } from '../../words/said';
  import EntryForm from './EntryForm.svelte';
  import { figure, standing } from './figures';
  import { type Entry, type Settling, TYPED, type Typed } from './settling.svelte';

  interface Props {
    hurdle: Schema['HurdleOut'];
    ledger: Schema['LedgerOut'];
    tags: string[];
    settling: Settling;
    links: Partial<Record<Entry, string>>;
    shown: boolean;
    onshow: () => void;
  }
  let { hurdle, ledger, tags, settling, links, shown, onshow }: Props = $props();
  const say = words.ledger;
  const name = $derived(say.names[hurdle.name] ?? hurdle.name);
  const isTyped = (entry: Entry): entry is Typed => (TYPED as readonly Entry[]).includes(entry);
  const value = $derived(figure(hurdle.value, hurdle.unit));
  const limit = $derived(
    hurdle.limit === null
      ? ''
      : typeof hurdle.limit === 'number'
        ? say.limit(figure(hurdle.limit, hurdle.unit, 3))
        : said(hurdle.limit),
  );
  const stands = $derived(
    hurdle.signed && !hurdle.blocks
      ? say.signedFor
      : hurdle.was_fail && hurdle.blocks && hurdle.state === 'pass'
        ? say.corrected
        : standing(hurdle),
  );
  const steps = $derived(
    ledger.steps.filter((one) => one.hurdle === hurdle.name && one.struck_reason === null),
  );
</script>

<li>
  <HurdleMark
    state={hurdle.state}
    cautious={hurdle.cautions.length > 0}
    signed={hurdle.signed !== null && !hurdle.blocks}
    blocks={hurdle.blocks}
    known={hurdle.known}
  />
  <div class="what">
    <p>
      <strong class="first-letter:uppercase">{name}</strong>
      <span class="stands {hurdle.blocks ? hurdle.state : 'fine'}">{stands}</span>
      {#if value}<span class="whitespace-nowrap">{value}</span>{/if}
      <span class="quiet text-sm">
        {[limit, say.known[hurdle.known], hurdle.source && say.source(textOf(hurdle.source))]
          .filter(Boolean)
          .join(' · ')}
        {#if hurdle.pieces}· {say.pieces(hurdle.pieces.join(', '))}{/if}
      </span>
      {#if hurdle.evidence.length}<button class="show" aria-pressed={shown} onclick={onshow}
          >{say.showOn(name)}</button
        >{/if}
    </p>
    {#if hurdle.why}<p>
        {whole(said(hurdle.why))}
        {#if hurdle.settles && hurdle.blocks}<span class="quiet">{whole(said(hurdle.settles))}</span>{/if}
      </p>{/if}
    {#if hurdle.was_fail}<p class="text-warning">
        {say.wasFail(hurdle.was_fail.by, fullDay(hurdle.was_fail.until), hurdle.was_fail.reason)}
      </p>{/if}
    {#each hurdle.cautions as caution, i (i)}<p class="text-warning">{whole(said(caution))}</p>{/each}
    {#if hurdle.signed}<p>
        {say.signed(hurdle.signed.by, fullDay(hurdle.signed.at), hurdle.signed.reason)}
      </p>{/if}
    {#each steps as one (one.id)}<p>
        <span class="first-letter:uppercase">{say.steps[one.step]}</span>{one.note ? `: ${one.note}` : ''}
        <span class="quiet text-sm">{fullDay(one.at)}, {one.by}</span>
      </p>{/each}
    {#if settling.hurdle === hurdle.name}
      <EntryForm {settling} {tags} />
    {:else if hurdle.blocks || hurdle.entries.includes('step')}
      <p class="flex flex-wrap gap-x-4">
        {#each hurdle.entries as entry (entry)}
          {#if isTyped(entry)}
            <button
              class="min-h-11 underline underline-offset-4"
              onclick={() => {
                settling.open(hurdle.name, entry, ledger);
              }}>{say.entries[entry]}</button
            >
          {:else if links[entry]}
            <a class="inline-flex min-h-11 items-center underline underline-offset-4" href={links[entry]}
              >{say.entries[entry]}</a
            >
          {/if}
        {/each}
      </p>
    {/if}
  </div>
</li>

<style>
  li {
    display: flex;
    align-items: flex-start;
    gap: 0.8rem;
    padding: 0.5rem 0;
    border-top: 1px solid var(--color-base-300);
  }
  .what {
    flex: 1;
    min-width: 0;
  }
  .stands {
    margin-inline: 0.3rem;
  }
  .fail {
    color: var(--color-error);
    font-weight: 600;
  }
  .unknown,
  .pass {
    color: var(--color-warning);
    font-weight: 600;
  }
  .fine,
  .pending {
    color: var(--quiet);
  }
  .show {
    min-height: 2rem;
    font-size: 0.9rem;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .show[aria-pressed='true'] {
    font-weight: 600;
  }
</style>
