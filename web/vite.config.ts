import react from '@vitejs/plugin-react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ['source', 'module', 'browser', 'development|production'] },
  build: { target: 'es2022', sourcemap: false },
  server: { proxy: { '/api': process.env.API ?? 'http://127.0.0.1:8080' } },
});
