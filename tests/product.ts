import { fileURLToPath } from 'node:url';

const FIRST_PORT = Number(process.env['TEST_PORT'] ?? 4319);

/** A copy of the product for tests, with a data folder of its own. */
export interface Product {
  address: string;
  dataFolder: string;
}

/** The copy of a lane: lanes run side by side and share nothing. */
export const productOf = (lane: number): Product => ({
  address: `http://127.0.0.1:${FIRST_PORT + 10 * lane}`,
  dataFolder: fileURLToPath(
    new URL(`../.test/product${lane === 0 ? '' : lane + 1}`, import.meta.url),
  ),
});

export const demoFile = (name: string) =>
  fileURLToPath(new URL(`../demo/${name}`, import.meta.url));
