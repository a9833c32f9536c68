import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '../ui/fonts.css';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { CssBaseline, ThemeProvider } from '@mui/material';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { App } from './App.tsx';
import { intentions } from '../ui/intention.ts';
import { pageNonce } from './nonce.ts';
import { store } from './store.ts';
import { dayTheme } from './theme.ts';

intentions.watch(document);
const cache = createCache({ key: 'z', nonce: pageNonce() });
const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
createRoot(root).render(
  <StrictMode>
    <CacheProvider value={cache}>
      <ThemeProvider theme={dayTheme}>
        <CssBaseline />
        <Provider store={store}>
          <App />
        </Provider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
);
