<script lang="ts">
  // Temperature above, humidity below, on one time axis: mean as a line, extremes as a band. Drag to look closer.
  // Long, since one drawing over one time scale.
  import 'uplot/dist/uPlot.min.css';

  import uPlot from 'uplot';

  import type { Schema } from '../api/client';
  import { session } from '../shell/session.svelte';
  import { dayAndTime, shortDay } from '../units/format';
  import { numberText, tidyNumber } from '../units/number';
  import { inUnits, temperatureText } from '../units/quantity';
  import { words } from '../words';

  interface Props {
    climate: Schema['ClimateOut'];
    width: number;
    setpoint: Schema['Setpoint'] | null;
    onzoom: (from: number, to: number) => void;
  }
  let { climate, width, setpoint, onzoom }: Props = $props();
  let host = $state<HTMLDivElement | null>(null);
  let readout = $state('');

  type Panel = {
    unit: string;
    mean: (number | null)[];
    low: (number | null)[];
    high: (number | null)[];
    color: string;
    set: number | null;
  };

  /** A temperature in the units of the reader, as the axis has it. */
  const degrees = (c: number | null): number | null => (c === null ? null : inUnits('temperature', c));
  const humid = (rh: number | null | undefined): string => (rh == null ? '' : `, ${numberText(rh, 0)} %`);

  /** A gap in the log stays a gap in the line. */
  function withGaps(
    values: (number | null)[],
    times: number[],
    bucket: number,
  ): { t: number[]; v: (number | null)[] } {
    const t: number[] = [];
    const v: (number | null)[] = [];
    times.forEach((at, i) => {
      const before = times[i - 1];
      if (before !== undefined && at - before > bucket * 2.5 + 7200) {
        t.push(before + bucket);
        v.push(null);
      }
      t.push(at);
      v.push(values[i] ?? null);
    });
    return { t, v };
  }

  function chart(panel: Panel, into: HTMLElement, last: boolean, ink: string, grid: string): uPlot {
    const times = climate.at_s;
    const mean = withGaps(panel.mean, times, climate.bucket_s);
    const low = withGaps(panel.low, times, climate.bucket_s).v;
    const high = withGaps(panel.high, times, climate.bucket_s).v;
    const axis = {
      stroke: ink,
      grid: { stroke: grid, width: 1 },
      ticks: { show: false },
      font: '12px "Source Sans 3 Variable"',
    };
    return new uPlot(
      {
        width,
        height: last ? 270 : 230,
        legend: { show: false },
        cursor: {
          sync: { key: 'climate' },
          drag: { x: true, y: false, setScale: false },
          points: { show: false },
        },
        scales: { x: { time: true } },
        axes: [
          {
            ...axis,
            size: last ? 26 : 4,
            values: (_u, splits) => (last ? splits.map((s) => shortDay(s * 1000)) : splits.map(() => '')),
          },
          {
            ...axis,
            size: 48,
            values: (_u, splits) => splits.map((s) => `${tidyNumber(s, 2)} ${panel.unit}`),
          },
        ],
        series: [
          {},
          { stroke: 'transparent' },
          { stroke: 'transparent' },
          { stroke: panel.color, width: 1.4, points: { show: false } },
        ],
        bands: [{ series: [1, 2], fill: panel.color + '2e' }],
        hooks: {
          setSelect: [
            (u) => {
              if (u.select.width > 8)
                onzoom(
                  Math.round(u.posToVal(u.select.left, 'x')),
                  Math.round(u.posToVal(u.select.left + u.select.width, 'x')),
                );
            },
          ],
          setCursor: [
            (u) => {
              const i = u.cursor.idx;
              const at = i == null ? undefined : u.data[0][i];
              if (at === undefined) return;
              const nearest = times.findIndex((t) => t >= at);
              if (nearest < 0) return;
              readout = `${dayAndTime(new Date(at * 1000).toISOString())}: ${temperatureText(climate.temperature_c[nearest] ?? NaN)}${humid(climate.rh_percent[nearest])}`;
            },
          ],
          draw: [
            (u) => {
              if (panel.set === null) return;
              const y = u.valToPos(panel.set, 'y', true);
              u.ctx.save();
              u.ctx.strokeStyle = ink;
              u.ctx.setLineDash([6, 5]);
              u.ctx.beginPath();
              u.ctx.moveTo(u.bbox.left, y);
              u.ctx.lineTo(u.bbox.left + u.bbox.width, y);
              u.ctx.stroke();
              u.ctx.restore();
            },
          ],
        },
      },
      [mean.t, high, low, mean.v] as uPlot.AlignedData,
      into,
    );
  }

  $effect(() => {
    if (!host) return;
    void session.dark;
    const style = getComputedStyle(document.documentElement);
    const color = (name: string): string => style.getPropertyValue(name).trim();
    const panels: Panel[] = [
      {
        unit: '°',
        mean: climate.temperature_c.map(degrees),
        low: climate.temperature_min_c.map(degrees),
        high: climate.temperature_max_c.map(degrees),
        color: color('--color-secondary'),
        set: degrees(setpoint?.temperature_c ?? null),
      },
      {
        unit: '%',
        mean: climate.rh_percent,
        low: climate.rh_min_percent,
        high: climate.rh_max_percent,
        color: color('--color-info'),
        set: setpoint?.rh_percent ?? null,
      },
    ];
    const into = host;
    // a thermometer alone tells of no humidity: its panel is left out
    const told = panels.filter((panel) => panel.mean.some((value) => value !== null));
    const made = told.map((panel, i) =>
      chart(panel, into, i === told.length - 1, color('--quiet'), color('--color-base-300')),
    );
    return () => made.forEach((u) => u.destroy());
  });
</script>

<p class="quiet min-h-6 text-sm">
  {readout ||
    words.place.setTo(
      setpoint?.temperature_c == null ? '–' : temperatureText(setpoint.temperature_c),
      setpoint?.rh_percent?.toString() ?? '–',
    )}
</p>
<div bind:this={host} role="img" aria-label={`${words.piece.temperature}, ${words.piece.humidity}`}></div>
