<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query'
  import { onDestroy, type Component } from 'svelte'
  import Router from 'svelte-spa-router'
  import wrap from 'svelte-spa-router/wrap'
  import { connection } from './api/connection.svelte'
  import Crashed from './components/Crashed.svelte'
  import DoneLately from './components/DoneLately.svelte'
  import LostConnection from './components/LostConnection.svelte'
  import Sheets from './sheet/Sheets.svelte'
  import { lookForTabs } from './tabs'
  import Songs from './screens/songs/Songs.svelte'

  // All of a query is told: with only what was read before, data that is first read later stays old.
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false, notifyOnChangeProps: 'all' } },
  })
  onDestroy(connection.onReturn(() => void queries.invalidateQueries()))
  // The Desk brings the engraving with it and New song the editor, so they are loaded when first needed; and
  // what is typed belongs to its tab, so it is looked which tabs are open before a screen begins.
  const screen = (load: () => Promise<{ default: Component }>) =>
    wrap({ asyncComponent: async () => (await Promise.all([load(), lookForTabs()]))[0] })
  const routes = {
    '/': Songs,
    '/new': screen(() => import('./screens/songs/NewSong.svelte')),
    '/ladder': screen(() => import('./screens/ladder/Ladder.svelte')),
    '/library': screen(() => import('./screens/library/Library.svelte')),
    '/students': screen(() => import('./screens/students/Students.svelte')),
    '/song/:id/group': screen(() => import('./screens/group/Group.svelte')),
    '/song/:id/sheet': screen(() => import('./screens/sheet/LessonSheets.svelte')),
    '/song/:id/versions': screen(() => import('./screens/versions/Versions.svelte')),
    '/song/:id': screen(() => import('./screens/desk/Desk.svelte')),
    '*': Songs,
  }
</script>

<QueryClientProvider client={queries}>
  <LostConnection />
  <svelte:boundary onerror={(error) => console.error(error)}>
    <Router {routes} />
    {#snippet failed(error, again)}<Crashed {error} {again} />{/snippet}
  </svelte:boundary>
  <DoneLately />
  <Sheets />
</QueryClientProvider>
