<script lang="ts">
  // What a file leaves open: a question each, answered once for files of the same head.
  import { words } from '../../words';
  import { fullDay } from '../../units/format';
  import type { Importing } from './importing.svelte';

  interface Props {
    flow: Importing;
  }
  let { flow }: Props = $props();
  const say = words.imports;
  const questions = $derived(flow.preview?.questions ?? []);
  const zones = Intl.supportedValuesOf('timeZone');
  const day = /^\d{4}-\d{2}-\d{2}$/;
  const shows = (text: string): string => (day.test(text) ? fullDay(`${text}T12:00:00Z`) : text);
</script>

<form
  class="border-primary mt-4 border-l-4 pl-4"
  aria-label={say.asksTitle}
  onsubmit={(event) => {
    event.preventDefault();
    void flow.readSo();
  }}
>
  <h3 class="font-tag text-xl font-semibold">{say.asksTitle}</h3>
  <p class="quiet">{say.asksText}</p>
  {#each questions as question (question.asked)}
    <fieldset class="mt-3">
      <legend class="font-semibold">{question.text}</legend>
      <div class="flex flex-wrap gap-x-5">
        {#each question.choices as choice (choice.value)}
          <label class="flex min-h-11 items-center gap-2"
            ><input
              type="radio"
              class="radio"
              name={question.asked}
              value={choice.value}
              bind:group={flow.answers[question.asked]}
            />{shows(choice.shows)}</label
          >
        {/each}
        {#if question.free}
          <label class="flex min-h-11 items-center gap-2"
            >{say.other}<input
              class="input w-56"
              list="zones"
              aria-label={say.zoneName}
              bind:value={flow.answers[question.asked]}
            /></label
          >
          <datalist id="zones"
            >{#each zones as zone (zone)}<option value={zone}></option>{/each}</datalist
          >
        {/if}
      </div>
    </fieldset>
  {/each}
  <button class="btn btn-primary mt-3 min-h-11" disabled={!flow.answered}>{say.readSo}</button>
</form>
