<script lang="ts">
  // What was changed of what had been entered: of one batch, or of a day. Read only; nothing here can be changed.
  import { createQuery } from '@tanstack/svelte-query';

  import { api, type Schema, take } from '../../api/client';
  import { p } from '../../shell/router';
  import { dayAndTime, fullDay } from '../../units/format';
  import { weightAsTyped } from '../../units/quantity';
  import { words } from '../../words';
  import { nameOf } from '../../words/said';

  interface Props {
    batch?: number | null;
    day?: string | null;
    by?: string | null;
  }
  let { batch = null, day = null, by = null }: Props = $props();
  const say = words.life.changes;
  const found = createQuery(() => ({
    queryKey: ['changes', batch, day, by],
    queryFn: () =>
      take(
        api.GET('/api/changes', {
          params: {
            query: {
              ...(batch === null ? {} : { batch_id: batch }),
              ...(day ? { day } : {}),
              ...(by ? { by } : {}),
            },
          },
        }),
      ),
  }));
  type Field = Schema['FieldChanged'];
  const shown = (field: string, value: Field['before']): string => {
    if (value === null || value === '') return say.nothing;
    if (field.endsWith('_s')) return fullDay(new Date(Number(value) * 1000).toISOString());
    if (field.endsWith('_g')) return weightAsTyped(Number(value));
    return String(value);
  };
  /** A line that strikes something through, and who did; what else it says is the reason. */
  const struck = (line: Schema['ChangeOut']): { by: string } | null => {
    const by = line.fields.find((one) => one.field === 'struck_by' && one.after !== null);
    return by ? { by: String(by.after) } : null;
  };
</script>

{#if found.data?.lines.length === 0}<p class="quiet">{say.none}</p>{/if}
<ul class="changes">
  {#each found.data?.lines ?? [] as line (line.id)}
    <li>
      <span class="quiet when">{dayAndTime(line.at)}</span>
      <span class="what">
        <strong>{say.tables[line.what] ?? line.what}</strong>
        {#if line.tag}{line.tag}{/if}
        {#if line.batch && batch === null && line.batch_id !== null}<a
            class="underline underline-offset-4"
            href={p('/bench/batch/:id', { params: { id: String(line.batch_id) } })}>{line.batch}</a
          >{/if}
        {#if line.place}{line.place}{/if}
        {#if line.weighed_g !== null}{weightAsTyped(line.weighed_g)}{/if}
        {#if struck(line)}<span class="field">{say.struck}</span>{/if}
        {#each line.fields.filter((one) => !one.field.startsWith('struck_')) as field (field.field)}
          <span class="field"
            ><span class="quiet">{nameOf('field', field.field)}</span>
            <s>{shown(field.field, field.before)}</s> → {shown(field.field, field.after)}</span
          >
        {/each}
        {#if line.reason}<span class="quiet">“{line.reason}”</span>{/if}
      </span>
      <span class="quiet">{struck(line)?.by ?? line.by}</span>
    </li>
  {/each}
</ul>

<style>
  .changes li {
    display: grid;
    grid-template-columns: 8.5rem minmax(0, 1fr) auto;
    gap: 0.2rem 1rem;
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--color-base-300);
  }
  .field {
    margin-left: 0.7rem;
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    .changes li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .what {
      grid-row: 2;
      grid-column: 1 / -1;
    }
    .field {
      display: block;
      margin-left: 0;
    }
  }
</style>
