import { addTo, emptyBitset, fullBitset } from '@yellow-thread/core/groups';
import { trainQuestion } from '@yellow-thread/core/learning';
import { countCrosstab, rowOfMentions } from '@yellow-thread/core/report';
import { expectAbove, outlookOf } from '@yellow-thread/core/review';
import { randomSource } from '@yellow-thread/core/statistics';
import { demoCodes, demoQuestions, rounded, timed } from './material.js';

const answers = 100_000;
const settled = 400;

/** What the slice computes on 100,000 answers, each beside a plain way of doing the same. */
export function scale() {
  return [trainAtScale(), crosstabAtScale(), thresholdAtScale()];
}

/** Training on 100,000 answers against training on the settled ones alone: what the rest costs. */
function trainAtScale() {
  const draw = drawer(1);
  const pool = demoQuestions().flat();
  // two demo answers joined: new word pairs, the demo's own vocabulary
  const joined = Array.from({ length: answers }, () => {
    const [first, second] = [pool[draw(pool.length)]!, pool[draw(pool.length)]!];
    return {
      text: `${first.text} ${second.text}`,
      codes: new Set([...first.codes, ...second.codes]),
    };
  });
  const input = (count: number) => ({
    answers: joined.slice(0, count).map((one, i) => ({ ...one, settled: i < settled })),
    codes: demoCodes,
    seed: 1,
  });
  const all = timed(() => trainQuestion(input(answers)));
  const few = timed(() => trainQuestion(input(2 * settled)));
  return row(`train ${demoCodes.length} codes`, all.ms, few.ms, `${2 * settled} answers`);
}

/** 100 codes × 20 groups of 100,000 respondents as sets, against a loop over respondents. */
function crosstabAtScale() {
  const draw = drawer(2);
  const groupOf = Int32Array.from({ length: answers }, () => draw(20));
  const mentionsOf = Array.from({ length: 100 }, () =>
    Int32Array.from({ length: 8_000 }, () => draw(answers)),
  );
  const setOf = (members: Iterable<number>) => {
    const set = emptyBitset(answers);
    for (const i of members) addTo(set, i);
    return set;
  };
  const everybody = fullBitset(answers);
  const groups = Array.from({ length: 20 }, (_, g) =>
    setOf([...groupOf.keys()].filter((i) => groupOf[i] === g)),
  );
  const rows = mentionsOf.map((mentions, c) =>
    rowOfMentions(String(c), [mentions], everybody, answers),
  );
  const sets = timed(() =>
    countCrosstab({
      rows,
      columns: groups.map((members, g) => ({ key: String(g), members })),
      asked: everybody,
      answered: everybody,
      weights: null,
      base: 'answered',
    }),
  );
  const loop = timed(() =>
    mentionsOf.map((mentions) => {
      const people = new Set(mentions);
      const counts = new Array<number>(20).fill(0);
      for (let i = 0; i < answers; i++) if (people.has(i)) counts[groupOf[i]!]! += 1;
      return counts;
    }),
  );
  if (loop.result[3]![7] !== sets.result[3]![7]!.people) throw new Error('The counts differ.');
  return row('cloth 100 codes × 20 groups', sets.ms, loop.ms, 'a loop over respondents');
}

/** Moving the line once, against summing over all suggestions again. */
function thresholdAtScale() {
  const draw = drawer(3);
  const open = Array.from({ length: answers }, () => draw(1_000_000) / 1_000_000);
  const unseen = { yes: open.slice(0, 50), no: open.slice(-50) };
  const outlook = outlookOf(open, { found: 100, missed: 10 }, unseen);
  const moves = Array.from({ length: 200 }, (_, i) => i / 200);
  const sums = timed(() => moves.map((line) => expectAbove(outlook, line).shareRight?.value));
  const anew = timed(() =>
    moves.map((line) => {
      const above = open.filter((p) => p >= line);
      return above.reduce((sum, p) => sum + p, 0) / above.length;
    }),
  );
  return row('move the line', sums.ms / moves.length, anew.ms / moves.length, 'summing anew');
}

function drawer(seed: number): (below: number) => number {
  const next = randomSource(seed);
  return (below) => Math.floor((next() / 2 ** 32) * below);
}

const row = (what: string, ms: number, otherMs: number, other: string) => ({
  what,
  ms: rounded(ms),
  'compared with': other,
  'its ms': rounded(otherMs),
  ratio: rounded(ms / otherMs, 3),
});
