import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

// Two entries: the business's interface, and the small page that clients open.
export default defineConfig({
  plugins: [react()],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    rollupOptions: { input: { index: 'index.html', client: 'client.html' } },
  },
});
