/**
 * Runs a benchmark by name: `npm run bench -- suggest`, `scale`, `train`, `read`, `import`, `code`, `review`, `look`, `finish`, `coverage`, `report` or `torture`; all without a name. What follows
 * the name is passed to the benchmark; with `--json` only JSON is printed.
 */
import { coding } from './coding.js';
import { copying } from './copying.js';
import { coverage } from './coverage.js';
import { encoding } from './encoding.js';
import { finishing } from './finishing.js';
import { firstHour } from './firstHour.js';
import { importing } from './importing.js';
import { looking } from './looking.js';
import { reporting } from './reporting.js';
import { reviewing } from './reviewing.js';
import { scale } from './scale.js';
import { suggest } from './suggest.js';
import { torturing } from './torture/torturing.js';
import { training } from './training.js';

const benches: Record<string, (args: string[]) => unknown> = {
  suggest,
  'first-hour': firstHour,
  scale,
  train: training,
  read: encoding,
  import: importing,
  code: coding,
  review: reviewing,
  look: looking,
  finish: finishing,
  coverage,
  copy: copying,
  report: reporting,
  torture: torturing,
};
const [, , wanted, ...args] = process.argv;
for (const name of wanted === undefined ? Object.keys(benches) : [wanted]) {
  const bench = benches[name];
  if (!bench)
    throw new Error(`No benchmark “${name}”: there are ${Object.keys(benches).join(', ')}.`);
  const rows = await bench(args);
  if (!args.includes('--json')) {
    console.log(`\n${name}`);
    console.table(rows);
  }
  console.log(JSON.stringify({ bench: name, rows }));
}
