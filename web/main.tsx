import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { QueryClientProvider } from '@tanstack/react-query';
import { BrowserRouter } from 'react-router';
import { App } from './App';
import { begin } from './data/begin';
import { client } from './data/queries';
import { fetchPage } from './pages';
import { applyTheme } from './theme/use-theme';
import { MessagesProvider } from './ui/Messages';
import { refuseDrops } from './ui/refuse-drops';
import './theme/theme.css';

applyTheme();
refuseDrops(window);
begin(location);
void fetchPage(location.pathname).then(() => {
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <MessagesProvider>
            <App />
          </MessagesProvider>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
});
