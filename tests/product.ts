import { fileURLToPath } from 'node:url';

/** Where the tests' own copy of the product answers, and where it keeps its data. */
export const address = `http://127.0.0.1:${process.env['TEST_PORT'] ?? 4319}`;
export const dataFolder = fileURLToPath(new URL('../.test/product', import.meta.url));
export const demoFile = (name: string) =>
  fileURLToPath(new URL(`../demo/${name}`, import.meta.url));
