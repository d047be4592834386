<script lang="ts">
  // The whole page: who is let in, what is followed, and what lies over every station.
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';

  import './shell/router';

  import { keepProgram } from './shell/connection.svelte';
  import { keepFocus } from './keys/focus';
  import { singleKeys } from './keys/single.svelte';
  import Alarms from './shell/Alarms.svelte';
  import Confirm from './shell/Confirm.svelte';
  import Connection from './shell/Connection.svelte';
  import { door } from './shell/door.svelte';
  import Find from './shell/Find.svelte';
  import { follow } from './shell/follow.svelte';
  import Notice from './shell/Notice.svelte';
  import { session } from './shell/session.svelte';
  import SignIn from './shell/SignIn.svelte';
  import { outbox } from './stations/hang/outbox.svelte';

  const queries = new QueryClient({
    defaultOptions: {
      queries: { staleTime: 5_000, refetchOnWindowFocus: true, retry: false, networkMode: 'always' },
    },
  });
  void door.look();
  let here = $state(door.me?.id ?? null);
  $effect(() => {
    if (!door.shut) return follow(queries);
  });
  $effect(() => {
    // whoever comes in sees their own answers, and what they typed without a connection is sent
    if ((door.me?.id ?? null) === here) return;
    here = door.me?.id ?? null;
    void queries.resetQueries();
    if (door.me) void outbox.send();
  });
  keepProgram(() => void queries.invalidateQueries());
  $effect(() => {
    document.documentElement.dataset.theme = session.dark ? 'cellar' : 'limewash';
    document.documentElement.dataset.keys = singleKeys.on ? 'on' : 'off';
  });
</script>

<QueryClientProvider client={queries}>
  <div class="flex h-full flex-col" {@attach keepFocus}>
    <Connection />
    <Alarms />
    <div class="min-h-0 flex-1" class:overflow-y-auto={door.shut}>
      {#if door.shut}<SignIn />{:else}<Router />{/if}
    </div>
  </div>
  <Find />
  <Confirm />
  <Notice />
</QueryClientProvider>
