<script lang="ts">
  // The course of a batch as one line: its stages, and on it the stretches that a hurdle rests on; gaps are shaded.
  import type { Schema } from '../../api/client';
  import { fullDay, weekdayAndYear } from '../../units/format';
  import { said } from '../../words/said';
  import { words } from '../../words';

  interface Props {
    stages: Schema['StageOut'][];
    ends: string;
    hurdle: Schema['HurdleOut'] | null;
  }
  let { stages, ends, hurdle }: Props = $props();
  const say = words.ledger;
  const ms = (at: string): number => new Date(at).getTime();
  const from = $derived(Math.min(...stages.map((s) => ms(s.from_at))));
  const to = $derived(Math.max(ms(ends), from + 3_600_000));
  const at = (moment: number): number => (100 * (Math.min(Math.max(moment, from), to) - from)) / (to - from);
  // stages of several pieces lie in rows of their own where they overlap
  const rows = $derived.by(() => {
    const kept: { end: number; stages: Schema['StageOut'][] }[] = [];
    for (const stage of [...stages].sort((a, b) => ms(a.from_at) - ms(b.from_at))) {
      const row = kept.find((one) => one.end <= ms(stage.from_at) + 1000);
      const end = stage.to_at === null ? to : ms(stage.to_at);
      if (row) {
        row.stages.push(stage);
        row.end = end;
      } else kept.push({ end, stages: [stage] });
    }
    return kept.slice(0, 4);
  });
</script>

{#if stages.length}
  <figure class="course" aria-label={say.line}>
    {#each rows as row, i (i)}
      <div class="row">
        {#each row.stages as stage (`${stage.kind}${stage.from_at}${stage.to_at}${stage.pieces.join()}`)}
          {@const left = at(ms(stage.from_at))}
          {@const width = at(stage.to_at === null ? to : ms(stage.to_at)) - left}
          <span
            class="stage {stage.kind}"
            style:left="{left}%"
            style:width="{Math.max(width, 0.4)}%"
            title={`${say.stages[stage.kind]} ${stage.place ?? ''}, ${weekdayAndYear(stage.from_at)}`}
            ><span class="label">{width > 7 ? say.stages[stage.kind] : ''}</span></span
          >
        {/each}
      </div>
    {/each}
    <div class="row evidence" aria-label={hurdle ? say.names[hurdle.name] : undefined}>
      {#each hurdle?.evidence ?? [] as one, i (i)}
        {@const left = at(ms(one.from_at))}
        <span
          class={one.says.code === 'evidence.unknown' ? 'gap' : 'over'}
          style:left="{left}%"
          style:width="{Math.max(at(ms(one.to_at)) - left, 0.5)}%"
          title={`${said(one.says)}: ${weekdayAndYear(one.from_at)} – ${weekdayAndYear(one.to_at)}`}
        ></span>
      {/each}
    </div>
    <figcaption>
      <span>{fullDay(new Date(from).toISOString())}</span>
      <span>{fullDay(new Date(to).toISOString())}</span>
    </figcaption>
  </figure>
  {#if hurdle?.evidence.length}
    <ul class="told" aria-live="polite">
      {#each hurdle.evidence.slice(0, 6) as one, i (i)}
        <li>
          <span class="key {one.says.code === 'evidence.unknown' ? 'gap' : 'over'}" aria-hidden="true"></span>
          {said(one.says)}: {weekdayAndYear(one.from_at)} – {weekdayAndYear(one.to_at)}
        </li>
      {/each}
    </ul>
  {/if}
{/if}

<style>
  .course {
    margin-top: 0.8rem;
  }
  .row {
    position: relative;
    height: 1.7rem;
    margin-bottom: 2px;
  }
  .stage {
    position: absolute;
    inset-block: 0;
    overflow: hidden;
    border-left: 2px solid var(--color-base-100);
    background: var(--color-base-300);
  }
  .label {
    padding: 0 0.4rem;
    color: var(--color-base-content);
    font-size: 0.85rem;
    line-height: 1.7rem;
    white-space: nowrap;
  }
  .cold,
  .cure {
    background: color-mix(in oklab, var(--color-info) 26%, var(--color-base-100));
  }
  .warm {
    background: color-mix(in oklab, var(--color-warning) 34%, var(--color-base-100));
  }
  .room {
    background: color-mix(in oklab, var(--color-warning) 18%, var(--color-base-100));
  }
  .evidence {
    height: 0.9rem;
    border-bottom: 1px solid var(--color-base-300);
  }
  .evidence > span {
    position: absolute;
    inset-block: 0;
  }
  .over {
    background: var(--color-error);
  }
  .gap {
    background: repeating-linear-gradient(-45deg, var(--quiet) 0 2px, var(--color-base-300) 2px 6px);
  }
  figcaption {
    display: flex;
    justify-content: space-between;
    color: var(--quiet);
    font-size: 0.85rem;
  }
  .told {
    margin-top: 0.3rem;
    font-size: 0.95rem;
  }
  .key {
    display: inline-block;
    width: 1rem;
    height: 0.6rem;
    margin-right: 0.4rem;
  }
</style>
