/** What was read from the server, and is kept while the page is open. One for screens and for addresses alike. */
import { QueryClient } from '@tanstack/react-query';

export const cache = new QueryClient({
  defaultOptions: {
    // The server is usually this very machine: being offline says nothing about reaching it.
    queries: { networkMode: 'always', staleTime: 30_000, retry: 1 },
    mutations: { networkMode: 'always' },
  },
});
