<script lang="ts">
  // A window in time: from, earliest, best, latest, and now as a knot on the string.
  import { scaleUtc } from 'd3-scale';

  import { shortDay, timeOfDay } from '../units/format';
  import { words } from '../words';

  interface Props {
    from: string;
    earliest: string | null;
    best: string | null;
    latest: string | null;
    now: number;
    until: number; // the end of the axis, shared by the rows of a batch
    label: string;
  }
  let { from, earliest, best, latest, now, until, label }: Props = $props();
  const say = words.salt.window;

  let width = $state(320);
  const height = 46;
  const line = 18;
  const x = $derived(scaleUtc([new Date(from), new Date(until)], [6, width - 8]));
  const at = (t: string | null, otherwise: number): number => (t === null ? otherwise : x(new Date(t)));
  const right = $derived(width - 8);
  const hours = $derived(until - new Date(from).getTime() < 4 * 86_400_000);
  const text = (t: string): string => (hours ? timeOfDay(t) : shortDay(t));
  const e = $derived(Math.max(6, at(earliest, 6)));
  const b = $derived(at(best, right));
  const l = $derived(Math.min(right, at(latest, right)));
  const n = $derived(Math.min(right, x(new Date(now))));
</script>

<div bind:clientWidth={width} class="min-w-0">
  <svg {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={label}>
    <line x1="6" x2={right} y1={line} y2={line} stroke="var(--string)" stroke-width="1.5" />
    <rect x={e} y={line - 5} width={Math.max(0, l - e)} height="10" rx="2" fill="var(--band)" />
    {#if latest === null}
      <path d={`M${right - 5} ${line - 5}l5 5l-5 5`} fill="none" stroke="var(--string)" stroke-width="1.5" />
    {:else if l < right}
      <line x1={l} x2={l} y1={line - 8} y2={line + 8} stroke="var(--color-error)" stroke-width="2" />
      <rect x={l} y={line - 1.5} width={right - l} height="3" fill="var(--color-error)" opacity="0.35" />
    {/if}
    {#if best && b <= right}
      <line x1={b} x2={b} y1={line - 9} y2={line + 9} stroke="var(--color-primary)" stroke-width="2.5" />
      <text x={Math.min(b, right - 18)} y={line + 24} text-anchor="middle" class="day">{text(best)}</text>
    {/if}
    {#if latest && l - b > 52 && l < right - 4}
      <text x={Math.min(l, right - 18)} y={line + 24} text-anchor="middle" class="quiet-text"
        >{text(latest)}</text
      >
    {/if}
    {#if earliest && b - e > 52}
      <text x={Math.max(e, 18)} y={line + 24} text-anchor="middle" class="quiet-text">{text(earliest)}</text>
    {/if}
    <circle
      cx={n}
      cy={line}
      r="5.5"
      fill="var(--color-base-100)"
      stroke="var(--color-base-content)"
      stroke-width="2.5"
    />
    <text x={Math.max(14, Math.min(n, right - 12))} y="9" text-anchor="middle" class="now">{say.now}</text>
  </svg>
</div>

<style>
  text {
    font-size: 12px;
    fill: var(--color-base-content);
  }
  .day {
    font-weight: 600;
    font-size: 13px;
  }
  .quiet-text,
  .now {
    fill: var(--quiet);
  }
</style>
