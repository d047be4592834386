<script lang="ts">
  // The paper tag: what every piece carries.
  import type { Snippet } from 'svelte';

  interface Props {
    top: string;
    main: string;
    chosen?: boolean;
    loud?: boolean;
    mark?: Snippet;
  }
  let { top, main, chosen = false, loud = false, mark }: Props = $props();
</script>

<span class="tag" class:chosen>
  <span class="paper">
    <span class="hole" aria-hidden="true"></span>
    <span class="top">{top}</span>
    <span class="main" class:loud>{main}</span>
  </span>
  {#if mark}<span class="mark">{@render mark()}</span>{/if}
</span>

<style>
  .tag {
    position: relative;
    display: inline-block;
    isolation: isolate;
  }
  /* the paper's edge: a shape a little larger behind it; shadows would be drawn anew for every piece */
  .tag::before {
    content: '';
    position: absolute;
    inset: -0.5px -0.5px -1.5px;
    z-index: -1;
    background: var(--paper-edge);
    clip-path: polygon(9px 0, calc(100% - 9px) 0, 100% 9px, 100% 100%, 0 100%, 0 9px);
  }
  .paper {
    display: flex;
    flex-direction: column;
    align-items: center;
    min-width: 3.35rem;
    padding: 0.5rem 0.25rem 0.22rem;
    background: var(--paper);
    clip-path: polygon(9px 0, calc(100% - 9px) 0, 100% 9px, 100% 100%, 0 100%, 0 9px);
    font-family: var(--font-tag);
    line-height: 1.05;
  }
  .chosen .paper {
    background: var(--color-primary);
    color: var(--color-primary-content);
  }
  .hole {
    position: absolute;
    top: 3px;
    width: 5px;
    height: 5px;
    border-radius: 50%;
    background: var(--color-base-100);
    box-shadow: inset 0 0 0 1px var(--paper-edge);
  }
  .top {
    font-size: 0.72rem;
    font-weight: 500;
    color: var(--quiet);
    white-space: nowrap;
  }
  .chosen .top {
    color: inherit;
  }
  .main {
    font-size: 1rem;
    font-weight: 600;
    white-space: nowrap;
  }
  .main.loud {
    font-weight: 700;
  }
  .mark {
    position: absolute;
    top: -9px;
    right: -9px;
    line-height: 0;
  }
</style>
