import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          testTimeout: 60_000,
          setupFiles: ['tests/setup/properties.ts'],
          sequence: { groupOrder: 0 },
          include: [
            'core/**/*.test.ts',
            'shared/**/*.test.ts',
            'app/**/*.test.ts',
            'server/**/*.test.ts',
            'tests/house/**/*.test.ts',
          ],
        },
      },
      {
        test: {
          name: 'api',
          sequence: { groupOrder: 1 },
          include: ['tests/api/**/*.test.ts', 'tests/access/**/*.test.ts', 'tests/faults/**/*.test.ts'],
          globalSetup: ['tests/setup/global.ts'],
          pool: 'forks',
          maxWorkers: 2,
          testTimeout: 60_000,
          hookTimeout: 90_000,
        },
      },
    ],
    reporters: ['default', ['json', { outputFile: '.rekko/vitest.json' }]],
  },
})
