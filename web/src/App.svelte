<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';

  import './shell/router';

  import Connection from './shell/Connection.svelte';
  import Notice from './shell/Notice.svelte';
  import { session } from './shell/session.svelte';

  const queries = new QueryClient({
    defaultOptions: {
      queries: { staleTime: 5_000, refetchOnWindowFocus: true, retry: false, networkMode: 'always' },
    },
  });
  $effect(() => {
    document.documentElement.dataset.theme = session.dark ? 'cellar' : 'limewash';
  });
</script>

<QueryClientProvider client={queries}>
  <Connection />
  <Router />
  <Notice />
</QueryClientProvider>
