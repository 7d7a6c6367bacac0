export { default } from '../vitest.shared.ts';
