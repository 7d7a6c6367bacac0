import { mergeConfig } from 'vitest/config';
import shared from '../vitest.shared.ts';

export default mergeConfig(shared, { test: { setupFiles: ['test/seed.ts'] } });
