<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Flarik: {page.status}</title></svelte:head>

<main>
  <h1>
    {page.status === 503 ? 'Not reachable' : page.status === 404 ? 'Not found' : 'Something went wrong'}
  </h1>
  <p>{page.error?.message}</p>
  <p><a href="/">To the list of builds</a></p>
</main>

<style>
  main {
    max-width: 40rem;
    margin: 20vh auto 0;
    padding: 1rem;
    display: grid;
    gap: 1rem;
  }
</style>
