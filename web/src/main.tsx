import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import './app.css';
import { queryClient } from './data/queryClient.js';
import { router } from './router.js';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <RouterProvider router={router} />
      <Toaster
        position="bottom-center"
        theme="system"
        duration={4000}
        toastOptions={{ style: { fontFamily: 'inherit', width: 'auto' } }}
      />
    </QueryClientProvider>
  </StrictMode>,
);
