import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { z } from 'zod';
import { App } from './app.tsx';
import { store } from './store.ts';
import './styles.css';

// The content policy forbids code made from text, which Zod would otherwise try.
z.config({ jitless: true });

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <App />
    </Provider>
  </StrictMode>,
);
