<script lang="ts">
  // The mark on a tag's corner. Each state has a shape of its own, so that colour is never needed to tell them.
  import type { Schema } from '../api/client';
  import { words } from '../words';

  interface Props {
    state: Schema['PieceCard']['state'];
    wants: Schema['PieceCard']['wants'];
    size?: number;
  }
  let { state, wants, size = 18 }: Props = $props();
  const mark = $derived(
    state !== 'drying' && state !== 'soon'
      ? state
      : wants.includes('too_fast')
        ? 'too_fast'
        : wants.includes('doubtful')
          ? 'doubtful'
          : wants.includes('weigh')
            ? 'weigh'
            : null,
  );
  const label = $derived(
    mark === null
      ? ''
      : mark === 'too_fast' || mark === 'doubtful' || mark === 'weigh'
        ? words.hang.wants[mark]
        : words.hang.states[mark],
  );
</script>

{#if mark}
  <svg width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={label}>
    <title>{label}</title>
    {#if mark === 'likely'}
      <rect
        x="2"
        y="2"
        width="16"
        height="16"
        rx="2"
        fill="var(--paper)"
        stroke="var(--color-info)"
        stroke-width="2.4"
      />
      <path
        d="M5.5 10.2l3 3L14.4 7"
        fill="none"
        stroke="var(--color-info)"
        stroke-width="2.2"
        stroke-dasharray="2.6 1.6"
      />
    {:else if mark === 'hold'}
      <path d="M6 1h8l5 5v8l-5 5H6l-5-5V6z" fill="var(--color-error)" />
      <path d="M5 10h10" stroke="var(--color-error-content)" stroke-width="3" />
    {:else if mark === 'feel' || mark === 'felt'}
      <path
        d="M2 12c0-5 3-9 8-9s8 4 8 9c0 3-3 6-8 6s-8-3-8-6z"
        fill={mark === 'felt' ? 'var(--color-info)' : 'var(--paper)'}
        stroke="var(--color-info)"
        stroke-width="2.2"
      />
      <path
        d="M6.5 10.5c1.6-2 5.4-2 7 0M7.8 13.6c1.2-1.2 3.2-1.2 4.4 0"
        fill="none"
        stroke={mark === 'felt' ? 'var(--color-info-content)' : 'var(--color-info)'}
        stroke-width="1.8"
      />
    {:else if mark === 'ready'}
      <rect x="1" y="1" width="18" height="18" rx="2" fill="var(--color-success)" />
      <path d="M5 10.5l3.4 3.4L15 6.8" fill="none" stroke="var(--color-success-content)" stroke-width="2.6" />
    {:else if mark === 'over'}
      <path d="M10 19L1 8V1h18v7z" fill="var(--color-error)" />
      <path
        d="M10 4v7M6.6 8.4L10 12l3.4-3.6"
        fill="none"
        stroke="var(--color-error-content)"
        stroke-width="2.2"
      />
    {:else if mark === 'too_fast'}
      <circle cx="10" cy="10" r="7.4" fill="var(--paper)" stroke="var(--color-error)" stroke-width="4" />
      <circle cx="10" cy="10" r="2.6" fill="var(--color-error)" />
    {:else if mark === 'stalled'}
      <rect x="1" y="1" width="18" height="18" rx="9" fill="var(--color-warning)" />
      <path d="M7 5.5v9M13 5.5v9" stroke="var(--color-warning-content)" stroke-width="2.6" />
    {:else if mark === 'doubtful'}
      <path d="M10 0l10 10-10 10L0 10z" fill="var(--color-warning)" />
      <text
        x="10"
        y="14.4"
        text-anchor="middle"
        font-size="13"
        font-weight="700"
        fill="var(--color-warning-content)">?</text
      >
    {:else}
      <path
        d="M10 2v3M3 6h14M3 6l-2 6h4zM17 6l-2 6h4zM10 5v12M6 17h8"
        fill="none"
        stroke="var(--color-info)"
        stroke-width="1.8"
      />
    {/if}
  </svg>
{/if}
