<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';

  import './shell/router';

  import { keepProgram } from './shell/connection.svelte';
  import Connection from './shell/Connection.svelte';
  import Find from './shell/Find.svelte';
  import { follow } from './shell/follow.svelte';
  import Notice from './shell/Notice.svelte';
  import { session } from './shell/session.svelte';

  const queries = new QueryClient({
    defaultOptions: {
      queries: { staleTime: 5_000, refetchOnWindowFocus: true, retry: false, networkMode: 'always' },
    },
  });
  $effect(() => follow(queries));
  keepProgram(() => void queries.invalidateQueries());
  $effect(() => {
    document.documentElement.dataset.theme = session.dark ? 'cellar' : 'limewash';
  });
</script>

<QueryClientProvider client={queries}>
  <div class="flex h-full flex-col">
    <Connection />
    <div class="min-h-0 flex-1"><Router /></div>
  </div>
  <Find />
  <Notice />
</QueryClientProvider>
