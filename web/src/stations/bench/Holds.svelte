<script lang="ts">
  // Red holds of a batch; each wants a reason and its legal basis.
  import { api, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import { session } from '../../shell/session.svelte';
  import { fullDay } from '../../units/format';
  import { words } from '../../words';
  import { said } from '../../words/said';

  let { holds, took }: { holds: Schema['HoldOut'][]; took: (answer: Schema['BatchOut']) => void } = $props();
  const say = words.bench.batch;
  let reason = $state('');
  let basis = $state('');

  async function answer(event: SubmitEvent, id: number): Promise<void> {
    event.preventDefault();
    try {
      took(
        await take(
          api.POST('/api/holds/{hold_id}/answer', {
            params: { path: { hold_id: id } },
            body: { reason, legal_basis: basis, ...head() },
          }),
        ),
      );
      reason = basis = '';
    } catch (error) {
      session.complain(error);
    }
  }
</script>

{#each holds as hold (hold.id)}
  <section class="hold" class:answered={hold.answered_at} aria-label={say.holdTitle}>
    <p class="text-lg font-semibold">{say.holdTitle}: {hold.says ? said(hold.says) : hold.text}</p>
    <p class="quiet text-sm">{hold.source}</p>
    {#if hold.answered_at}
      <p>
        {hold.reason} · {hold.legal_basis}
        <span class="quiet">{say.answered(hold.answered_by ?? '', fullDay(hold.answered_at))}</span>
      </p>
    {:else}
      <form
        class="mt-2 grid max-w-2xl grid-cols-2 gap-3 max-md:grid-cols-1"
        onsubmit={(e) => void answer(e, hold.id)}
      >
        <Field label={say.reason} bind:value={reason} required />
        <Field label={say.basis} bind:value={basis} required />
        <button class="btn min-h-11">{say.answer}</button>
      </form>
    {/if}
  </section>
{/each}

<style>
  .hold {
    margin: 0.8rem 0;
    padding: 0.3rem 0 0.3rem 1rem;
    border-left: 6px solid var(--color-error);
  }
  .hold p:first-child {
    color: var(--color-error);
  }
  .answered {
    border-color: var(--string);
  }
  .answered p:first-child {
    color: inherit;
  }
</style>
