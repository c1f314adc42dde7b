import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 900 },
  server: {
    host: '127.0.0.1',
    port: 5180,
    proxy: { '/api': { target: 'http://127.0.0.1:4280', changeOrigin: true } },
  },
});
