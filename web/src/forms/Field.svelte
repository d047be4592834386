<script lang="ts">
  // A labelled field with its unit or hint; the text is kept as typed, numbers are read on use.
  interface Props {
    label: string;
    value: string;
    hint?: string;
    numeric?: boolean;
    required?: boolean;
    fault?: boolean;
    type?: string;
    list?: string;
    onchange?: () => void;
  }
  let {
    label,
    value = $bindable(),
    hint,
    numeric = false,
    required = false,
    fault = false,
    type = 'text',
    list,
    onchange,
  }: Props = $props();
</script>

<label class="block">
  <span class="flex justify-between gap-2 text-sm whitespace-nowrap"
    ><span class="font-semibold">{label}</span><span class="quiet">{hint ?? ''}</span></span
  >
  <input
    class="input min-h-11 w-full text-base"
    class:input-error={fault}
    {type}
    {list}
    {required}
    inputmode={numeric ? 'decimal' : undefined}
    autocomplete="off"
    aria-invalid={fault}
    bind:value
    oninput={() => onchange?.()}
  />
</label>
