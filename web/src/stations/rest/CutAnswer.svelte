<script lang="ts">
  // What the face says: the likeliest cause with this batch's evidence, the others, what to do now, and next time.
  // Long, since one answer told from top to bottom: what was seen, why, what next.
  import { useQueryClient } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import { keys } from '../../api/queries';
  import Reason from '../../forms/Reason.svelte';
  import { p } from '../../shell/router';
  import { session } from '../../shell/session.svelte';
  import { dayAndTime } from '../../units/format';
  import { words } from '../../words';
  import { said, whole } from '../../words/said';

  let { piece, onagain }: { piece: Schema['UnderTheKnife']; onagain: () => void } = $props();
  const say = words.cut;
  const client = useQueryClient();
  const face = $derived(piece.faces.find((f) => f.struck_reason === null));
  let striking = $state(false);
  let others = $state(false);
  const first = $derived(piece.causes[0]);
  const bar = (strength: number): string => `${Math.round(100 * Math.abs(strength))}%`;

  async function takeOver(cause: string, says: string, asVersion: boolean): Promise<void> {
    if (!face) return;
    try {
      const answer = await take(
        api.POST('/api/cut-faces/{face_id}/next-time', {
          params: { path: { face_id: face.id } },
          body: { ...head(), cause, says, as_version: asVersion },
        }),
      );
      client.setQueryData(keys.cutPiece(piece.piece_id), answer);
      void client.invalidateQueries({ queryKey: keys.recipes });
    } catch (error) {
      session.complain(error);
    }
  }
  async function strike(reason: string): Promise<void> {
    if (!face) return;
    try {
      const params = { path: { face_id: face.id } };
      const body = { reason, by: session.who };
      client.setQueryData(
        keys.cutPiece(piece.piece_id),
        await take(api.POST('/api/cut-faces/{face_id}/strike', { params, body })),
      );
      void client.invalidateQueries({ queryKey: keys.cut });
    } catch (error) {
      session.complain(error);
    }
    striking = false;
  }
</script>

{#snippet evidence(cause: Schema['CauseOut'])}
  {#each cause.evidence as told (told.measure)}
    <div class="told">
      <p>{whole(said(told.says))}</p>
      <span class="bar" class:against={told.strength < 0} aria-hidden="true"
        ><i style:width={bar(told.strength)}></i></span
      >
      <span class="quiet text-sm">{told.strength < 0 ? say.against : say.speaksFor}</span>
    </div>
  {/each}
  {#if !cause.recorded}<p class="quiet">{say.recordedNothing}</p>{/if}
  {#if cause.unrecorded.length}<p class="quiet text-sm">
      {say.unrecorded([...new Set(cause.unrecorded.map((m) => say.measures[m] ?? m))].join(', '))}
    </p>{/if}
{/snippet}

{#if face}
  <section aria-label={say.now}>
    <p class="quiet">
      {dayAndTime(face.at)} · {face.by} · {say.verdicts[face.verdict]}{face.note ? ` · ${face.note}` : ''}
    </p>
    <p class="quiet">
      {face.signs.length ? face.signs.map((s) => say.seenSigns[s]).join(', ') : say.nothingSeen} · {say.ringSeen(
        face.face.ring_mm
          ? say.ringMm(face.face.ring_mm)
          : face.face.ring === 'none'
            ? say.ringMm(0)
            : say.ringUnmeasured,
        say.ringMm(face.predicted.ring_mm),
      )}
    </p>
    {#if first}
      <h2 class="font-tag mt-2 text-2xl font-bold" data-testid="cause">
        {first.speaks > 0 ? (say.causes[first.name] ?? first.name) : say.unexplained}
      </h2>
      <p class="quiet">
        {first.speaks > 0
          ? say.stages[first.stage]
          : say.mayBe(say.causes[first.name] ?? first.name, say.stages[first.stage])}
      </p>
      <div class="mt-2">{@render evidence(first)}</div>
    {/if}
    <h3 class="font-tag mt-4 text-lg font-semibold">{say.now}</h3>
    {#each piece.now as one (one.says.code)}
      <p
        class:text-error={one.act === 'hold' || one.act === 'discard'}
        class:text-warning={one.act === 'look'}
      >
        <strong>{say.acts[one.act]}:</strong>
        {said(one.says)}.
      </p>
    {/each}
    {#each piece.causes.filter((c) => c === first || others) as cause (cause.name)}
      {#if cause !== first}
        <h4 class="font-tag mt-4 text-lg font-semibold">{say.causes[cause.name] ?? cause.name}</h4>
        <p class="quiet">{say.stages[cause.stage]}</p>
        {@render evidence(cause)}
      {/if}
      {#if cause.next_time.length}
        <h3 class="font-tag mt-3 text-lg font-semibold">{say.next}</h3>
        {#each cause.next_time as line (line.says.code)}
          <div class="line">
            <span class="first-letter:uppercase">{said(line.says)}</span>
            {#if line.taken !== null}<strong>✓ {say.taken}</strong>
            {:else}
              <span class="flex flex-wrap gap-1">
                {#if line.changes && piece.recipe_id}<button
                    class="btn btn-sm min-h-11"
                    onclick={() => void takeOver(cause.name, line.says.code, true)}>{say.asVersion}</button
                  >{/if}
                <button
                  class="btn btn-sm min-h-11"
                  onclick={() => void takeOver(cause.name, line.says.code, false)}>{say.intoNotes}</button
                >
              </span>
            {/if}
          </div>
        {/each}
      {/if}
    {/each}
    {#if piece.causes.length > 1}
      <button
        class="mt-2 min-h-11 underline underline-offset-4"
        aria-expanded={others}
        onclick={() => (others = !others)}>{say.others} ({piece.causes.length - 1})</button
      >
    {/if}
    {#if piece.causes.length && !piece.recipe_id}<p class="quiet text-sm">
        {say.noRecipe(piece.product)}
      </p>{/if}
    <div class="mt-3 flex flex-wrap gap-2">
      {#if piece.state !== 'gone' && piece.state !== 'hanging'}<a
          class="btn btn-primary min-h-11"
          href={p('/rest/pack/:id', { params: { id: String(piece.piece_id) } })}>{words.stock.pack}</a
        >{/if}
      {#if piece.state !== 'gone'}<button class="btn min-h-11" onclick={onagain}>{say.again}</button>{/if}
      <button class="btn btn-ghost min-h-11" onclick={() => (striking = !striking)}>{say.strike}</button>
    </div>
    {#if striking}<Reason
        label={say.strikeWhy}
        button={say.strike}
        onanswer={(why) => void strike(why)}
      />{/if}
    <p class="quiet mt-3 text-sm">{say.estimate}</p>
  </section>
{/if}

<style>
  .told {
    display: grid;
    grid-template-columns: 1fr 6.5rem 3.4rem;
    gap: 0.7rem;
    align-items: center;
    padding: 0.25rem 0;
  }
  .bar {
    display: block;
    height: 8px;
    background: var(--color-base-300);
  }
  .bar i {
    display: block;
    height: 100%;
    background: var(--color-warning);
  }
  .bar.against i {
    background: var(--steel);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 0.3rem 0.8rem;
    padding: 0.2rem 0.6rem;
    margin-top: 0.3rem;
    border: 1px solid var(--paper-edge);
    border-radius: 4px;
    background: var(--paper);
  }
</style>
