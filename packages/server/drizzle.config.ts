import { defineConfig } from 'drizzle-kit'

export default defineConfig({
  dialect: 'postgresql',
  schema: './packages/server/src/schema/*.ts',
  out: './packages/server/migrations',
})
