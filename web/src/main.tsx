import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import './design/quill.css';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { ApiError } from './api/client';
import { App } from './App';
import { theme, variables } from './design/theme';

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? '';
// What keeps the page still behind a dialog writes a style of its own.
setNonce(nonce);
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (count, error) =>
        count < 2 && !(error instanceof ApiError && error.status >= 400 && error.status < 500),
    },
  },
});

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <MantineProvider
        theme={theme}
        cssVariablesResolver={variables}
        defaultColorScheme="light"
        getStyleNonce={() => nonce}
      >
        <Notifications position="bottom-left" />
        <QueryClientProvider client={queries}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  );
