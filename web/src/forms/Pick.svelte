<script lang="ts" generics="T extends string">
  interface Props {
    label: string;
    value: T;
    options: readonly (readonly [T, string])[];
    onchange?: () => void;
  }
  let { label, value = $bindable(), options, onchange }: Props = $props();
</script>

<label class="block">
  <span class="text-sm font-semibold">{label}</span>
  <select class="select min-h-11 w-full text-base" bind:value onchange={() => onchange?.()}>
    {#each options as [key, text] (key)}<option value={key}>{text}</option>{/each}
  </select>
</label>
