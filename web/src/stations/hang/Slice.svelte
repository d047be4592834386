<script lang="ts">
  // A slice off to taste, and the piece hangs on: both weights, so that its loss stays true.
  import { api, ProblemError, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import When from '../../forms/When.svelte';
  import { When as Moment } from '../../forms/when.svelte';
  import { takesFocus } from '../../keys/focus';
  import { session } from '../../shell/session.svelte';
  import { typedAs, weightText } from '../../units/quantity';
  import { words } from '../../words';
  import type { Refresh } from './weigh.svelte';

  let { card, refresh, onclose }: { card: Schema['PieceCard']; refresh: Refresh; onclose: () => void } =
    $props();
  const say = words.life.slice;
  let before = $state('');
  let after = $state('');
  let problem = $state<string | null>(null);
  const moment = new Moment();

  async function go(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const [before_g, after_g] = [typedAs('mass', before), typedAs('mass', after)];
    problem = before_g === null || after_g === null ? words.errors.noNumber : null;
    if (before_g === null || after_g === null) return;
    try {
      const answer = await take(
        api.POST('/api/pieces/{piece_id}/slice', {
          params: { path: { piece_id: card.id } },
          body: { before_g, after_g, note: '', ...head(moment) },
        }),
      );
      refresh(answer);
      session.say(say.done(card.tag, answer.card.tag_g === null ? null : weightText(answer.card.tag_g)));
      onclose();
    } catch (error) {
      problem = error instanceof ProblemError ? error.message : words.errors.unexpected(0);
    }
  }
</script>

<form class="mt-3" aria-label={say.title} {@attach takesFocus} onsubmit={go}>
  <h3 class="font-tag text-lg font-semibold">{say.title}</h3>
  <p class="quiet text-sm">{say.hint}</p>
  <div class="flex flex-wrap items-end gap-3">
    <div class="w-36"><Field label={say.before} numeric bind:value={before} /></div>
    <div class="w-36"><Field label={say.after} numeric bind:value={after} /></div>
    <button class="btn btn-primary min-h-11">{say.go}</button>
  </div>
  <When when={moment} />
  {#if problem}<p class="text-error first-letter:uppercase" role="alert">{problem}</p>{/if}
</form>
