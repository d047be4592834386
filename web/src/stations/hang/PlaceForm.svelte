<script lang="ts">
  // Make a chamber: its rods, hooks and set point. Also the first step of an empty workshop.
  import { api, ProblemError, type Schema, take } from '../../api/client';
  import { head } from '../../api/entry';
  import Field from '../../forms/Field.svelte';
  import { optionalNumber } from '../../forms/typed';
  import { words } from '../../words/en';

  let {
    onmade,
    label = words.place.make,
    before,
  }: { onmade: (place: Schema['PlaceOut']) => void; label?: string; before?: () => Promise<void> } = $props();

  let name = $state('');
  let kind = $state<keyof typeof words.place.kinds>('chamber');
  const hangs = $derived(kind === 'chamber' || kind === 'ambient');
  const controlled = $derived(kind !== 'ambient');
  let rods = $state('2');
  let hooks = $state('6');
  let temperature = $state('13');
  let humidity = $state('78');
  let spacing = $state('');
  let problem = $state<ProblemError | null>(null);
  let busy = $state(false);

  /** What a place of its kind is usually set to; a start, not a rule. */
  function usual(): void {
    const [c, rh] = {
      chamber: ['13', '78'],
      ambient: ['', ''],
      warm: ['24', '90'],
      salt: ['3', ''],
      store: ['8', '70'],
    }[kind] as [string, string];
    temperature = c;
    humidity = rh;
  }

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    problem = null;
    busy = true;
    try {
      if (before) await before();
      const many = hangs ? (optionalNumber(rods) ?? 0) : 0;
      if (hangs && (many < 1 || many > 40 || !Number.isInteger(many)))
        throw new ProblemError('invalid', `${words.place.rods}: 1–40`);
      const made = await take(
        api.POST('/api/places', {
          body: {
            name,
            kind: kind === 'ambient' ? 'chamber' : kind,
            hooks_per_rod: Array.from({ length: many }, () => optionalNumber(hooks) ?? 0),
            hook_spacing_mm: optionalNumber(spacing),
            setpoint: {
              temperature_c: controlled ? optionalNumber(temperature) : null,
              rh_percent: controlled ? optionalNumber(humidity) : null,
            },
            ...head(),
          },
        }),
      );
      onmade(made);
    } catch (error) {
      problem = error instanceof ProblemError ? error : new ProblemError('error', String(error));
    } finally {
      busy = false;
    }
  }
  const where = $derived(problem?.where ?? '');
</script>

<form onsubmit={submit} class="grid grid-cols-2 gap-3" aria-label={words.place.title}>
  <div class="col-span-2">
    <Field label={words.place.name} bind:value={name} required fault={where === 'name'} />
  </div>
  <label class="col-span-2 block"
    ><span class="block text-sm font-semibold">{words.place.kind}</span>
    <select class="select min-h-11 w-full" bind:value={kind} onchange={usual}>
      {#each Object.entries(words.place.kinds) as [key, text] (key)}<option value={key}>{text}</option>{/each}
    </select></label
  >
  {#if hangs}
    <Field label={words.place.rods} numeric bind:value={rods} required />
    <Field label={words.place.hooks} numeric bind:value={hooks} required fault={where.startsWith('hooks')} />
    <div class="col-span-2">
      <Field label={words.rods.spacing} numeric bind:value={spacing} fault={where === 'hook_spacing_mm'} />
    </div>
  {/if}
  {#if controlled}
    <Field
      label={words.place.temperature}
      numeric
      bind:value={temperature}
      fault={where.endsWith('temperature_c')}
    />
    <Field label={words.place.humidity} numeric bind:value={humidity} fault={where.endsWith('rh_percent')} />
  {/if}
  {#if problem}<p class="text-error col-span-2 first-letter:uppercase" role="alert">{problem.message}</p>{/if}
  <button class="btn btn-primary btn-lg col-span-2" disabled={busy}>{label}</button>
</form>
