import { config } from 'zod';

// As start.js does for the page: a worker does not have it.
config({ jitless: true });
