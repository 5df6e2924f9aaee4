import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** The router's package leads everybody to its development build, warnings and all; growers are given the other one. */
const router = fileURLToPath(
  new URL('dist/production/index.mjs', import.meta.resolve('react-router/package.json')),
)

export default defineConfig(({ command }) => ({
  plugins: [react(), tailwindcss()],
  resolve: { alias: command === 'build' ? [{ find: /^react-router$/, replacement: router }] : [] },
  build: { target: 'es2022', assetsInlineLimit: 0, sourcemap: false },
  server: { proxy: { '/api': process.env.KLADOS_API ?? 'http://127.0.0.1:4280' } },
}))
