<script lang="ts">
  // The planner's own record: what was told of each plan when it was begun, and what happened.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';

  import { keys } from '../../api/queries';
  import { p } from '../../shell/router';
  import { dayRange, fullDay, percent, shortDay } from '../../units/format';
  import { words } from '../../words';

  const say = words.plan.against;
  const found = createQuery(() => ({
    queryKey: keys.plansAgainst,
    queryFn: () => take(api.GET('/api/plans/against')),
  }));
  const share = (chance: number): string => percent(100 * chance, 0);
  function done(plan: Schema['PlanAgainst']): string {
    const { p10, p90 } = plan.done_told;
    const day = plan.done ? shortDay(plan.done) : say.never;
    return p10 && p90 ? say.window(day, dayRange(p10, p90)) : day;
  }
</script>

{#if found.data}
  {@const told = found.data}
  <section class="mt-8" aria-label={say.title}>
    <h2 class="font-tag text-xl font-semibold">{say.title}</h2>
    <p class="quiet">{say.hint}</p>
    {#if told.counted && told.told_chance !== null}
      <p>{say.counted(told.in_time, told.counted, share(told.told_chance))}.</p>
      <p>{say.inside(told.inside, told.counted)}.</p>
      <div class="overflow-x-auto">
        <table class="mt-2">
          <thead
            ><tr
              >{#each Object.values(say.heads) as head (head)}<th scope="col">{head}</th>{/each}</tr
            ></thead
          >
          <tbody>
            {#each told.plans as one (one.plan_id)}
              <tr>
                <th scope="row"
                  ><a
                    class="underline underline-offset-4"
                    href={p('/book/batch/:id', { params: { id: String(one.batch_id) } })}>{one.batch}</a
                  >
                  <span class="quiet">{one.pieces} × {one.product}, {one.place}</span></th
                >
                <td>{fullDay(one.wanted)}</td>
                <td>{say.began(shortDay(one.start_planned), shortDay(one.started))}</td>
                <td>{done(one)}</td>
                <td>{share(one.told_chance)}</td>
                <td
                  >{one.in_time ? say.inTime : one.at_table ? say.late : say.never}{#if one.moved}<span
                      class="quiet">, {say.moved(one.moved)}</span
                    >{/if}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {:else}<p>{say.none}</p>{/if}
  </section>
{/if}

<style>
  th,
  td {
    padding: 0.35rem 1.2rem 0.35rem 0;
    text-align: left;
    vertical-align: baseline;
    border-bottom: 1px solid var(--color-base-300);
  }
  th[scope='row'] {
    font-weight: 600;
  }
  th[scope='row'] .quiet {
    display: block;
    font-weight: 400;
  }
</style>
