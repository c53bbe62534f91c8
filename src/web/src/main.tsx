import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { ProblemError } from './api/client';
import { App } from './App';
import { applyTheme } from './session/theme';
import { Whole } from './ui/Whole';
import './theme.css';

applyTheme();

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (failures, error) => failures < 2 && error instanceof ProblemError && error.passing,
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Whole at="">
            <App />
          </Whole>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
