<script lang="ts">
  // Parts of the meat block from a spreadsheet, before they go onto the sheet.
  import { untrack } from 'svelte';

  import { understand } from '../../forms/pasted';
  import Pasted from '../../forms/Pasted.svelte';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import type { Desk } from './desk.svelte';
  import { partOf } from './pasting';

  let { desk, cells, onclose }: { desk: Desk; cells: string[][]; onclose: () => void } = $props();
  const say = words.bench;
  const columns = {
    name: { name: say.part, also: ['name', 'meat', 'cut', 'nome', 'carne', 'taglio'], numeric: false },
    weight: { name: say.trimmed, also: ['weight', 'grams', 'g', 'kg', 'peso'], numeric: true },
    fat: { name: say.fatOf, also: ['fat', 'grasso'], numeric: true },
    lot: { name: say.lot, also: ['lot', 'lotto'], numeric: false },
  };
  const found = untrack(() => understand(cells, columns));
</script>

<Pasted
  {found}
  {columns}
  fault={(row) => {
    const part = partOf(row);
    return typeof part === 'string' ? part : null;
  }}
  onleave={onclose}
  ontake={(rows) => {
    const undo = desk.replaced(() => {
      desk.sheet.parts.push(...rows.map(partOf).filter((part) => typeof part !== 'string'));
      desk.changed();
    });
    session.say(say.pasted.took(rows.length), async () => undo());
    onclose();
  }}
>
  {#snippet asked(roles)}
    {#if !roles.includes('fat')}<p class="mt-1">{say.pasted.tenPercent}</p>{/if}
  {/snippet}
</Pasted>
