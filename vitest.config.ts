import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: [
      '{core,app}/**/*.test.ts',
      'tests/{oracle,hostile,house}/*.test.ts',
      'server/**/*.test.ts',
      'cli/**/*.test.ts',
      'demo/**/*.test.ts',
    ],
    testTimeout: 180_000,
    maxWorkers: 2,
    // Files that share their modules are read once: a sixth of the time.
    isolate: false,
  },
})
