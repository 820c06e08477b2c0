import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ['source', 'module', 'browser', 'development|production'] },
  build: {
    rolldownOptions: {
      output: {
        // what several screens share comes in one file: twenty small ones take their turns before a screen can be drawn
        codeSplitting: { groups: [{ name: 'shared', minShareCount: 3 }] },
      },
    },
  },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': `http://127.0.0.1:${process.env['API_PORT'] ?? 4311}` },
  },
});
