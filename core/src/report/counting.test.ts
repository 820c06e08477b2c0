import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  addTo,
  countOf,
  emptyBitset,
  fullBitset,
  intersect,
  type Bitset,
} from '../groups/index.js';
import {
  basesOf,
  countedAnswers,
  countedRow,
  decidedAnswers,
  defaultRule,
  type CodeState,
  type CountingRule,
  type QuestionState,
} from './counting.js';
import { countCrosstab, rollUp, type CrosstabCell } from './crosstab.js';

const SIZE = 40;
const CODES = ['a', 'b', 'c'] as const;
const COUNTED: readonly CountingRule[] = ['sample', 'decided', 'settled'];

/** What has happened to one respondent's answer. */
interface Answer {
  answered: boolean;
  drawn: boolean;
  /** How it was settled. */
  settled: 'no' | 'blind' | 'assisted';
  /** By code: how often it is mentioned, and whether a suggestion of it was decided. */
  codes: { mentions: number; judged: boolean }[];
  weight: number;
}
const answer: fc.Arbitrary<Answer> = fc.record({
  answered: fc.boolean(),
  drawn: fc.boolean(),
  settled: fc.constantFrom('no', 'blind', 'assisted'),
  codes: fc.array(fc.record({ mentions: fc.nat(2), judged: fc.boolean() }), {
    minLength: CODES.length,
    maxLength: CODES.length,
  }),
  weight: fc.integer({ min: 0, max: 3 }),
});
const study = fc.record({
  answers: fc.array(answer, { minLength: SIZE, maxLength: SIZE }),
  /** Codes that were closed, for the answers with a lower number. */
  closed: fc.array(fc.option(fc.nat(SIZE)), { minLength: CODES.length, maxLength: CODES.length }),
});
type Study = typeof study extends fc.Arbitrary<infer Value> ? Value : never;

const setOf = (holds: (i: number) => boolean): Bitset => {
  const set = emptyBitset(SIZE);
  for (let i = 0; i < SIZE; i++) if (holds(i)) addTo(set, i);
  return set;
};
const stateOf = ({ answers, closed }: Study): QuestionState => ({
  size: SIZE,
  answered: setOf((i) => answers[i]!.answered),
  settled: setOf((i) => answers[i]!.answered && answers[i]!.settled !== 'no'),
  sampled: setOf(
    (i) => answers[i]!.drawn && answers[i]!.answered && answers[i]!.settled === 'blind',
  ),
  codes: new Map(
    CODES.map((id, c): [string, CodeState] => [
      id,
      {
        mentions: [
          Int32Array.from(
            answers.flatMap(({ answered, codes }, i) =>
              answered ? new Array<number>(codes[c]!.mentions).fill(i) : [],
            ),
          ),
        ],
        judged: setOf((i) => answers[i]!.answered && answers[i]!.codes[c]!.judged),
        closed: closed[c] === null ? null : setOf((i) => i < closed[c]!),
      },
    ]),
  ),
});

/** The cells of the codes and of their theme in a table of everybody. */
function cellsOf(state: QuestionState, rule: CountingRule, weights: number[] | null = null) {
  const codes = CODES.map((id) => countedRow(state, id, rule));
  const cells = countCrosstab({
    rows: [...codes, rollUp('theme', codes)],
    columns: [{ key: 'total', members: fullBitset(SIZE) }],
    asked: fullBitset(SIZE),
    answered: state.answered,
    weights: weights && Float64Array.from(weights),
    base: basesOf(rule, false)[0],
  }).map(([cell]) => cell!);
  return { codes: cells.slice(0, -1), theme: cells.at(-1)! };
}

const bare = ({ people, mentions, share, base }: CrosstabCell) => ({
  people,
  mentions,
  share,
  base: base.people,
});

describe('under every rule', () => {
  test('a theme is no less than any of its codes, no more than their sum, and within the base', () => {
    fc.assert(
      fc.property(study, fc.constantFrom(...COUNTED), fc.boolean(), (one, rule, weighted) => {
        const weights = one.answers.map(({ weight }) => weight);
        const { codes, theme } = cellsOf(stateOf(one), rule, weighted ? weights : null);
        for (const code of codes) {
          expect(theme.people).toBeGreaterThanOrEqual(code.people);
          expect(theme.weighted).toBeGreaterThanOrEqual(code.weighted);
          // one base for all rows
          expect(code.base).toEqual(theme.base);
        }
        expect(theme.people).toBeLessThanOrEqual(
          codes.reduce((sum, { people }) => sum + people, 0),
        );
        expect(theme.weighted).toBeLessThanOrEqual(
          codes.reduce((sum, { weighted: some }) => sum + some, 0),
        );
        expect(theme.people + theme.undecided).toBeLessThanOrEqual(theme.base.people);
      }),
    );
  });

  test('figures are those of going through the answers one by one', () => {
    fc.assert(
      fc.property(study, (one) => {
        const state = stateOf(one);
        const { answers, closed } = one;
        const counts: Record<'sample' | 'decided' | 'settled', (each: Answer) => boolean> = {
          sample: ({ drawn, settled }) => drawn && settled === 'blind',
          decided: () => true,
          settled: ({ settled }) => settled !== 'no',
        };
        for (const rule of ['sample', 'decided', 'settled'] as const) {
          const { codes } = cellsOf(state, rule);
          const its = answers.filter((each) => each.answered && counts[rule](each));
          codes.forEach((cell, c) => {
            expect(cell.base.people).toBe(its.length);
            expect(cell.people).toBe(its.filter((each) => each.codes[c]!.mentions > 0).length);
            const undecided = answers.filter(
              (each, i) =>
                each.answered &&
                each.settled === 'no' &&
                each.codes[c]!.mentions === 0 &&
                !each.codes[c]!.judged &&
                !(closed[c] !== null && i < closed[c]!),
            );
            expect(cell.undecided).toBe(rule === 'decided' ? undecided.length : 0);
          });
        }
      }),
    );
  });

  test('accepting a suggestion lowers no figure of what is decided, in whatever order', () => {
    const step = fc.record({ at: fc.nat(SIZE - 1), code: fc.nat(CODES.length - 1) });
    const accept = (one: Study, { at, code }: { at: number; code: number }): Study => ({
      ...one,
      answers: one.answers.map((each, i) =>
        i === at
          ? {
              ...each,
              codes: each.codes.map((its, c) =>
                c === code ? { ...its, mentions: Math.max(1, its.mentions) } : its,
              ),
            }
          : each,
      ),
    });
    fc.assert(
      fc.property(study, fc.array(step, { maxLength: 8 }), (one, steps) => {
        let now = one;
        for (const each of steps) {
          const [before, after] = [now, (now = accept(now, each))].map((some) =>
            cellsOf(stateOf(some), 'decided'),
          );
          [...after!.codes, after!.theme].forEach((cell, c) => {
            const was = [...before!.codes, before!.theme][c]!;
            expect(cell.people).toBeGreaterThanOrEqual(was.people);
            expect(cell.undecided).toBeLessThanOrEqual(was.undecided);
          });
        }
        const otherWay = steps.toReversed().reduce(accept, one);
        expect(cellsOf(stateOf(otherWay), 'decided')).toEqual(cellsOf(stateOf(now), 'decided'));
      }),
    );
  });

  test('the rules agree once everything is settled by hand, and the sample is everybody', () => {
    fc.assert(
      fc.property(study, (one) => {
        const settled: Study = {
          ...one,
          answers: one.answers.map((each) => ({ ...each, settled: 'blind', drawn: true })),
        };
        const [sample, decided, all] = COUNTED.map((rule) => {
          const { codes, theme } = cellsOf(stateOf(settled), rule);
          return [...codes, theme].map(bare);
        });
        expect(decided).toEqual(all);
        expect(sample).toEqual(all);
      }),
    );
  });
});

test('an answer is decided when it is settled, or every code of the book is decided for it', () => {
  fc.assert(
    fc.property(study, (one) => {
      const state = stateOf(one);
      const decided = decidedAnswers(state, CODES);
      const rows = CODES.map((id) => countedRow(state, id, 'decided'));
      const isIn = (set: Bitset | null | undefined, i: number) =>
        !!set &&
        countOf(
          intersect(
            set,
            setOf((j) => j === i),
          ),
        ) > 0;
      const isOpen = (i: number) =>
        rows.some(({ undecided }) => isIn(undecided, i)) ||
        (one.answers[i]!.settled === 'no' &&
          !one.answers[i]!.codes.some(({ judged }) => judged) &&
          !one.closed.some((last) => last !== null && i < last));
      const open = setOf((i) => one.answers[i]!.answered && isOpen(i));
      expect(countOf(intersect(decided, open))).toBe(0);
      expect(countOf(decided) + countOf(open)).toBe(countOf(state.answered));
      // a code that comes later is decided for what was settled alone
      expect(decidedAnswers(state, [...CODES, 'new'])).toEqual(countedAnswers(state, 'settled'));
      expect(decidedAnswers(state, [])).toEqual(countedAnswers(state, 'settled'));
    }),
  );
});

test('without being asked a table counts by the strongest rule that holds', () => {
  expect(defaultRule({ isFinished: true, hasSample: true })).toBe('decided');
  expect(defaultRule({ isFinished: false, hasSample: true })).toBe('estimated');
  expect(defaultRule({ isFinished: false, hasSample: false })).toBe('settled');
  // shares of mentions need all of them
  expect(basesOf('decided', false)).not.toContain('mentions');
  expect(basesOf('decided', true)).toContain('mentions');
});
