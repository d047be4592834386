<script lang="ts">
  // The cut face of a piece in salt: pale where no salt has come, dark where it has, the front a fine ring.
  interface Props {
    radius: number[];
    profile: number[];
    settles: number;
    geometry: 'slab' | 'cylinder' | 'sphere';
    size: number;
    label?: string;
  }
  let { radius, profile, settles, geometry, size, label }: Props = $props();

  const slab = $derived(geometry === 'slab');
  const strongest = $derived(Math.max(settles * 1.6, 1));
  function shade(salt: number): string {
    const share = Math.min(1, Math.max(0, salt / strongest)) ** 0.7;
    return `color-mix(in oklab, var(--meat-raw), var(--meat-dry) ${(share * 100).toFixed(0)}%)`;
  }
  // from the rim inwards, each shell drawn over the one before
  const shells = $derived(
    radius
      .map((r, i) => ({ edge: (r + (radius[i + 1] ?? 2 - r)) / 2, fill: shade(profile[i] ?? 0) }))
      .reverse(),
  );
  // where the salt has come to half of what it settles at
  const front = $derived.by(() => {
    const inside = profile.findIndex((salt) => salt >= settles / 2);
    return inside <= 0 ? null : ((radius[inside] ?? 1) + (radius[inside - 1] ?? 1)) / 2;
  });
  const across = 52;
  const deep = 30;
</script>

<svg
  width={slab ? size * 1.35 : size}
  height={slab ? size * 0.72 : size}
  viewBox={slab ? '-81 -43 162 86' : '-60 -60 120 120'}
  role={label ? 'img' : undefined}
  aria-label={label}
  aria-hidden={label ? undefined : 'true'}
>
  {#if slab}
    {#each shells as shell, i (i)}
      <rect
        x={-75}
        y={-deep * shell.edge}
        width={150}
        height={2 * deep * shell.edge}
        rx="5"
        fill={shell.fill}
      />
    {/each}
    {#if front}
      <path d={`M-75 ${-deep * front}h150M-75 ${deep * front}h150`} class="front" />
    {/if}
    <rect x={-75} y={-deep} width={150} height={2 * deep} rx="5" class="skin" />
  {:else}
    {#each shells as shell, i (i)}<circle r={across * shell.edge} fill={shell.fill} />{/each}
    {#if front}<circle r={across * front} class="front" />{/if}
    <circle r={across} class="skin" />
  {/if}
</svg>

<style>
  .front {
    fill: none;
    stroke: var(--fat);
    stroke-width: 1.6;
    stroke-dasharray: 3 4;
  }
  .skin {
    fill: none;
    stroke: var(--meat-line);
    stroke-width: 1.2;
  }
</style>
