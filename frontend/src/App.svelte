<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query'
  import Router from 'svelte-spa-router'
  import wrap from 'svelte-spa-router/wrap'
  import Songs from './screens/songs/Songs.svelte'
  import NewSong from './screens/songs/NewSong.svelte'

  const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } })
  // The Desk brings the engraving with it, so it is loaded when it is first needed.
  const routes = {
    '/': Songs,
    '/new': NewSong,
    '/ladder': wrap({ asyncComponent: () => import('./screens/ladder/Ladder.svelte') }),
    '/students': wrap({ asyncComponent: () => import('./screens/students/Students.svelte') }),
    '/song/:id/group': wrap({ asyncComponent: () => import('./screens/group/Group.svelte') }),
    '/song/:id/versions': wrap({ asyncComponent: () => import('./screens/versions/Versions.svelte') }),
    '/song/:id': wrap({ asyncComponent: () => import('./screens/desk/Desk.svelte') }),
    '*': Songs,
  }
</script>

<QueryClientProvider client={queries}>
  <Router {routes} />
</QueryClientProvider>
