<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query'
  import { onDestroy } from 'svelte'
  import Router from 'svelte-spa-router'
  import wrap from 'svelte-spa-router/wrap'
  import { connection } from './api/connection.svelte'
  import DoneLately from './components/DoneLately.svelte'
  import LostConnection from './components/LostConnection.svelte'
  import Sheets from './sheet/Sheets.svelte'
  import Songs from './screens/songs/Songs.svelte'

  const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } })
  onDestroy(connection.onReturn(() => void queries.invalidateQueries()))
  // The Desk brings the engraving with it and New song the editor, so they are loaded when first needed.
  const routes = {
    '/': Songs,
    '/new': wrap({ asyncComponent: () => import('./screens/songs/NewSong.svelte') }),
    '/ladder': wrap({ asyncComponent: () => import('./screens/ladder/Ladder.svelte') }),
    '/students': wrap({ asyncComponent: () => import('./screens/students/Students.svelte') }),
    '/song/:id/group': wrap({ asyncComponent: () => import('./screens/group/Group.svelte') }),
    '/song/:id/sheet': wrap({ asyncComponent: () => import('./screens/sheet/LessonSheets.svelte') }),
    '/song/:id/versions': wrap({ asyncComponent: () => import('./screens/versions/Versions.svelte') }),
    '/song/:id': wrap({ asyncComponent: () => import('./screens/desk/Desk.svelte') }),
    '*': Songs,
  }
</script>

<QueryClientProvider client={queries}>
  <LostConnection />
  <Router {routes} />
  <DoneLately />
  <Sheets />
</QueryClientProvider>
