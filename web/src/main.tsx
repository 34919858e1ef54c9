import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { router } from './router';
import './styles.css';

const queries = new QueryClient({
  defaultOptions: {
    // The server is usually this very machine: being offline says nothing about reaching it.
    queries: { networkMode: 'always', staleTime: 30_000, retry: 1 },
    mutations: { networkMode: 'always' },
  },
});

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
