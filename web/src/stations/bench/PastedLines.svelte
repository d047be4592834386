<script lang="ts">
  // Lines from a spreadsheet, before they go onto the sheet.
  import { untrack } from 'svelte';

  import Pasted from '../../forms/Pasted.svelte';
  import { understand } from '../../forms/pasted';
  import { session } from '../../shell/session.svelte';
  import { words } from '../../words';
  import type { Desk } from './desk.svelte';
  import { type Basis, basisOf, lineFault, takeLines } from './pasting';

  let { desk, cells, onclose }: { desk: Desk; cells: string[][]; onclose: () => void } = $props();
  const say = words.bench;
  const columns = {
    name: { name: say.line, also: ['name', 'ingredient', 'nome', 'ingrediente'], numeric: false },
    amount: {
      name: say.share,
      also: ['amount', 'grams', 'weight', 'dose', 'peso', 'grammi', '%', 'g/kg', 'g'],
      numeric: true,
    },
    note: { name: say.note, also: ['note', 'remark', 'nota'], numeric: false },
  };
  const found = untrack(() => understand(cells, columns));
  const bases: Basis[] = ['percent', 'per_kg', 'absolute'];
  /** What bare numbers are: as the head of their column has it, until somebody says otherwise. */
  let bare = $state(basisOf(found.head?.[found.roles.indexOf('amount')]));
</script>

<Pasted
  {found}
  {columns}
  fault={(row) => lineFault(row, bare, desk.worked?.meat_g ?? 0)}
  onleave={onclose}
  ontake={(rows) => {
    const undo = desk.replaced(() => takeLines(desk, rows, bare));
    session.say(say.pasted.took(rows.length), async () => undo());
    onclose();
  }}
>
  {#snippet asked()}
    <label class="mt-2 flex flex-wrap items-center gap-2"
      >{say.pasted.bare}
      <select class="pick" bind:value={bare}>
        {#each bases as basis (basis)}<option value={basis}>{say.bases[basis]}</option>{/each}
      </select></label
    >
  {/snippet}
</Pasted>
