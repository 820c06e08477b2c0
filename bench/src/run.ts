/** Runs a benchmark by name: `npm run bench -- suggest`, `scale`, `import` or `code`; all without a name. */
import { coding } from './coding.js';
import { importing } from './importing.js';
import { scale } from './scale.js';
import { suggest } from './suggest.js';

const benches: Record<string, () => unknown> = { suggest, scale, import: importing, code: coding };
const wanted = process.argv.slice(2);
for (const name of wanted.length > 0 ? wanted : Object.keys(benches)) {
  const bench = benches[name];
  if (!bench)
    throw new Error(`No benchmark “${name}”: there are ${Object.keys(benches).join(', ')}.`);
  const rows = await bench();
  console.log(`\n${name}`);
  console.table(rows);
  console.log(JSON.stringify({ bench: name, rows }));
}
