import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { App } from './app.tsx';
import { openOutbox } from './jobs/outbox.ts';
import { openNotTaken } from './jobs/not-taken.ts';
import { openPhotoQueue } from './jobs/photo-queue.ts';
import { store } from './store.ts';
import './styles.css';

// What waits on this device is part of every job that is shown: without it a step would look undone.
await store.dispatch(openOutbox());
await store.dispatch(openPhotoQueue());
await store.dispatch(openNotTaken());

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <App />
    </Provider>
  </StrictMode>,
);
