<script lang="ts">
  // What is to become of the bowl: pieces, casing, target, and the questions on which makers disagree.
  import Num from '../../forms/Num.svelte';
  import { words } from '../../words';
  import { namesOf } from '../../words/said';
  import type { Desk, Sheet } from './desk.svelte';

  let { desk }: { desk: Desk } = $props();
  const say = words.bench;
  const plan = $derived(desk.sheet.plan);
  const family = $derived(desk.family);
  const asked = $derived(
    (plan.goods === 'minced' ? ['loss_basis', 'warm', 'surface'] : ['loss_basis', 'surface']) as (
      'loss_basis' | 'warm' | 'surface'
    )[],
  );

  function set<K extends keyof Sheet['plan']>(key: K, value: Sheet['plan'][K]): void {
    desk.sheet.plan[key] = value;
    desk.changed();
  }
  const above = (n: number | null): n is number => n !== null && n > 0;
</script>

<section aria-label={say.plan}>
  <h2 class="font-tag text-xl font-semibold">{say.plan}</h2>
  {#if family}
    <p class="quiet">{say.salting[plan.salting]} · {family.before_hanging} · {family.hanging}</p>
  {/if}
  <div class="mt-1 flex flex-wrap items-end gap-x-6 gap-y-1">
    <label class="ask">
      <span class="quiet">{say.piece}</span>
      <Num
        label={say.piece}
        quantity="mass"
        value={plan.piece_g}
        digits={0}
        onset={(n) => above(n) && set('piece_g', n)}
      />
    </label>
    <label class="ask">
      <span class="quiet">{plan.shape === 'slab' ? say.across.flat : say.across.round}</span>
      <Num
        label={plan.shape === 'slab' ? say.across.flat : say.across.round}
        quantity="length"
        value={plan.across_mm}
        digits={0}
        onset={(n) => above(n) && n <= 600 && set('across_mm', n)}
      />
    </label>
    <label class="ask">
      <span class="quiet">{say.target}</span>
      <Num
        label={say.target}
        value={plan.target_loss_percent}
        digits={1}
        onset={(n) => above(n) && n <= 80 && set('target_loss_percent', n)}
      />
    </label>
    <label class="ask">
      <span class="quiet">{say.species}</span>
      <select
        class="pick"
        value={plan.species ?? 'pork'}
        onchange={(e) => set('species', e.currentTarget.value as Sheet['plan']['species'])}
      >
        {#each namesOf('species') as [id, text] (id)}<option value={id}>{text}</option>{/each}
      </select>
    </label>
    <label class="ask">
      <span class="quiet">{say.use}</span>
      <select
        class="pick"
        value={plan.use}
        onchange={(e) => set('use', e.currentTarget.value as Sheet['plan']['use'])}
      >
        {#each Object.entries(say.uses) as [id, text] (id)}<option value={id}>{text}</option>{/each}
      </select>
    </label>
    <label class="ask">
      <span class="quiet">{say.doneBy}</span>
      <select
        class="pick"
        value={plan.done_by}
        onchange={(e) => set('done_by', e.currentTarget.value as Sheet['plan']['done_by'])}
      >
        {#each Object.entries(say.doneBys) as [id, text] (id)}<option value={id}>{text}</option>{/each}
      </select>
    </label>
    <label class="ask">
      <span class="quiet">{say.casing}</span>
      <select
        class="pick"
        value={plan.casing}
        onchange={(e) => set('casing', e.currentTarget.value as Sheet['plan']['casing'])}
      >
        {#each Object.entries(words.casings) as [id, text] (id)}<option value={id}>{text}</option>{/each}
      </select>
    </label>
  </div>
  <dl class="questions mt-2 grid grid-cols-[max-content_1fr] items-baseline gap-x-4">
    <dt class="quiet">{say.questions.salt_basis}</dt>
    <dd>
      <select
        class="pick"
        aria-label={say.questions.salt_basis}
        bind:value={desk.sheet.salt_basis}
        onchange={() => desk.changed()}
      >
        {#each desk.reference.schools['salt_basis'] ?? [] as school (school.id)}
          <option value={school.id}>{school.name}</option>
        {/each}
      </select>
      <span class="quiet"
        >{desk.reference.schools['salt_basis']?.find((school) => school.id === desk.sheet.salt_basis)
          ?.brings ?? ''}</span
      >
    </dd>
    {#each asked as question (question)}
      {@const schools = desk.reference.schools[question] ?? []}
      <dt class="quiet">{say.questions[question]}</dt>
      <dd>
        <select
          class="pick"
          aria-label={say.questions[question]}
          value={plan[question]}
          onchange={(e) => set(question, e.currentTarget.value as never)}
        >
          {#each schools as school (school.id)}<option value={school.id}>{school.name}</option>{/each}
        </select>
        <span class="quiet">{schools.find((school) => school.id === plan[question])?.brings ?? ''}</span>
      </dd>
    {/each}
  </dl>
</section>

<style>
  .ask {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    font-size: 0.92rem;
  }
</style>
