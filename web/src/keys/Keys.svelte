<script lang="ts">
  import { words } from '../words';

  let { onclose }: { onclose: () => void } = $props();
</script>

<div class="fixed inset-0 z-50 grid place-items-center bg-black/40" role="presentation" onclick={onclose}>
  <div class="bg-base-100 rounded-sm p-6" role="dialog" aria-label={words.keys.title} aria-modal="true">
    <h2 class="font-tag text-2xl font-bold">{words.keys.title}</h2>
    <dl class="mt-3 grid grid-cols-[max-content_1fr] gap-x-6 gap-y-1.5">
      {#each words.keys.rows as [name, what] (name)}<dt class="font-tag font-semibold">{name}</dt>
        <dd>{what}</dd>{/each}
    </dl>
    <button class="btn mt-4 min-h-11" onclick={onclose}>{words.close}</button>
  </div>
</div>
