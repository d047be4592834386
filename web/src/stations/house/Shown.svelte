<script lang="ts">
  // In which language and units somebody reads: kept with them where people sign in, and in this browser. Another choice
  // loads the page anew.
  import { api, type Schema, take } from '../../api/client';
  import Pick from '../../forms/Pick.svelte';
  import OneLetter from '../../keys/OneLetter.svelte';
  import { door } from '../../shell/door.svelte';
  import { session } from '../../shell/session.svelte';
  import { keepShows, languages, type Shows, shows, writeShows } from '../../units/shows';
  import { words } from '../../words';

  let { workshop }: { workshop: Schema['WorkshopOut'] | null } = $props();
  const say = words.house.shown;
  const chosen = $state<Shows>({ ...shows });
  let everywhere = $state(false);

  const options = <T extends string>(named: Record<T, string>): [T, string][] =>
    Object.entries(named) as [T, string][];

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const text = writeShows(chosen);
    try {
      if (door.me) await take(api.PUT('/api/me/shows', { body: { shows: text } }));
      if (everywhere && workshop)
        await take(
          api.PUT('/api/workshop', { body: { ...workshop, shows: text, by: session.who, was: workshop } }),
        );
      if (keepShows(chosen) || everywhere) location.reload();
      else session.say(words.house.kept);
    } catch (error) {
      session.complain(error);
    }
  }
</script>

<section class="mt-8 max-w-2xl" aria-label={say.title}>
  <h2 class="font-tag text-xl font-semibold">{say.title}</h2>
  <p class="quiet">{door.me ? say.yours : say.here}</p>
  <form class="mt-2 grid gap-4" onsubmit={keep} aria-label={say.title}>
    <div class="grid grid-cols-2 gap-4 md:grid-cols-3">
      <Pick label={say.language} bind:value={chosen.language} options={options(languages)} />
      <Pick label={say.mass} bind:value={chosen.mass} options={options({ g: 'g, kg', oz: 'oz, lb' })} />
      <Pick label={say.temperature} bind:value={chosen.temperature} options={options({ C: '°C', F: '°F' })} />
      <Pick label={say.length} bind:value={chosen.length} options={options({ mm: 'mm, m', in: 'in, ft' })} />
      <Pick label={say.liquid} bind:value={chosen.liquid} options={options({ ml: 'ml', floz: 'fl oz' })} />
      <Pick
        label={say.hours}
        bind:value={chosen.hours}
        options={options({ '24': '18:30', '12': '6:30 pm' })}
      />
      <Pick label={say.week} bind:value={chosen.week} options={options(say.days)} />
    </div>
    {#if workshop && door.keepsHouse}
      <label class="flex min-h-11 items-center gap-2"
        ><input type="checkbox" class="checkbox" bind:checked={everywhere} />{say.everywhere}</label
      >
    {/if}
    <div><button class="btn min-h-11">{say.go}</button></div>
    <p class="quiet text-sm">{say.files}</p>
  </form>
  <div class="mt-2"><OneLetter /></div>
</section>
