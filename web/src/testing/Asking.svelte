<script lang="ts">
  // A component among the answers that have come.
  import { type QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import type { Component } from 'svelte';

  let {
    client,
    component: Drawn,
    props,
  }: { client: QueryClient; component: Component; props: object } = $props();
</script>

<QueryClientProvider {client}><Drawn {...props} /></QueryClientProvider>
