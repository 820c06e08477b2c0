import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { addTo, emptyBitset, fullBitset } from '@yellow-thread/core/groups';
import {
  asGroupShare,
  countCrosstab,
  exceededColumns,
  rowOfMentions,
} from '@yellow-thread/core/report';
import { randomSource } from '@yellow-thread/core/statistics';
import { PYTHON, rounded, timed } from './material.js';

const respondents = 100_000;
const codes = 100;
const groups = 20;
const mentionsOfCode = 8_000;
const RUNS = 20;

/**
 * 100 codes × 20 groups of 100,000 respondents with counts, percentages, intervals and pairwise tests, against the same
 * table by pandas (apt-get install python3-pandas) in the same run. The quickest of a few runs each.
 */
export function reporting() {
  const next = randomSource(2);
  const draw = (below: number) => Math.floor((next() / 2 ** 32) * below);
  const groupOf = Int32Array.from({ length: respondents }, () => draw(groups));
  const weights = Float64Array.from({ length: respondents }, () => 0.5 + draw(1000) / 1000);
  const mentionsOf = Array.from({ length: codes }, () =>
    Int32Array.from({ length: mentionsOfCode }, () => draw(respondents)),
  );
  const setOf = (members: Iterable<number>) => {
    const set = emptyBitset(respondents);
    for (const i of members) addTo(set, i);
    return set;
  };
  const everybody = fullBitset(respondents);
  const columns = [
    { key: 'total', members: everybody },
    ...Array.from({ length: groups }, (_, g) => ({
      key: String(g),
      members: setOf([...groupOf.keys()].filter((i) => groupOf[i] === g)),
    })),
  ];
  const rows = mentionsOf.map((mentions, c) =>
    rowOfMentions(String(c), [mentions], everybody, respondents),
  );
  const table = (weight: Float64Array | null) => {
    const cells = countCrosstab({
      rows,
      columns,
      asked: everybody,
      answered: everybody,
      weights: weight,
      base: 'answered' as const,
    });
    const letters = cells.map((row) =>
      exceededColumns(row.slice(1).map(asGroupShare), {
        correction: 'holm',
        isWeighted: weight !== null,
      }),
    );
    return { cells, beyond: letters.flat(2).length };
  };
  const folder = mkdtempSync(join(tmpdir(), 'report-bench-'));
  try {
    const write = (name: string, values: Int32Array | Float64Array) =>
      writeFileSync(join(folder, name), new Uint8Array(values.buffer));
    const joined = new Int32Array(codes * mentionsOfCode);
    mentionsOf.forEach((mentions, c) => joined.set(mentions, c * mentionsOfCode));
    write('respondents.i32', joined);
    write(
      'codes.i32',
      joined.map((_, i) => Math.floor(i / mentionsOfCode)),
    );
    write('groups.i32', groupOf);
    write('weights.f64', weights);
    return [null, weights].map((weight) => {
      const runs = Array.from({ length: RUNS }, () => timed(() => table(weight)));
      const ms = Math.min(...runs.map((run) => run.ms));
      const { cells, beyond } = runs[0]!.result;
      const other = byPandas(folder, weight !== null);
      const cell = cells[3]![8]!;
      if (
        other.count !== cell.people ||
        other.mentions !== cell.mentions ||
        Math.abs(other.share - cell.share!) > 1e-9
      )
        throw new Error('pandas counts differently.');
      return {
        what: `cloth ${codes} × ${groups}, ${weight ? 'weighted' : 'unweighted'}`,
        ms: rounded(ms),
        'pandas ms': rounded(other.ms),
        'times as fast': rounded(other.ms / ms, 1),
        'pairs beyond chance': beyond,
        'by pandas': other.beyond,
      };
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function byPandas(folder: string, isWeighted: boolean) {
  const script = fileURLToPath(new URL('pandas_report.py', import.meta.url));
  const said = execFileSync(PYTHON, [script, folder, isWeighted ? 'weighted' : 'plain'], {
    encoding: 'utf8',
  });
  return JSON.parse(said) as {
    ms: number;
    count: number;
    share: number;
    mentions: number;
    beyond: number;
  };
}
