import type { CodesTogether, Question, StudyDetail, TogetherQuery } from '@yellow-thread/contract';
import { ruleNames } from '@yellow-thread/core/report';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { togetherFileAddress, useTogether } from '../data/report.js';
import { useDrawer } from '../frame/drawer.js';
import { Term } from '../help/term.js';
import { Choice } from '../parts/field.js';
import { Menu, MenuFile, MenuTitle } from '../parts/menu.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { asCount, asShare } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { AnswersBehind } from './answersBehind.js';
import { togetherViewTexts } from './texts.js';

const measures = {
  both: togetherViewTexts.howManyBoth,
  jaccard: togetherViewTexts.jaccardBothAmongEither,
  phi: togetherViewTexts.phiCorrelation11,
  lift: togetherViewTexts.liftTimesOftenChance,
} as const;
type Measure = keyof typeof measures;

type Code = CodesTogether['codes'][number];
const MOST = 24;

/** Which codes occur in the same answer, or in the same line of it. */
export function TogetherView({ study, question }: { study: StudyDetail; question: Question }) {
  const [inOne, setInOne] = useState<TogetherQuery['inOne']>('answer');
  const [measure, setMeasure] = useState<Measure>('both');
  const [all, setAll] = useState(false);
  const together = useTogether(study.id, question.id, inOne);
  const codebook = useDrawnCodebook(study.id);
  const openDrawer = useDrawer();
  if (together.isError) return <PageProblem error={together.error} />;
  if (!together.data || !codebook) return <Waiting what={togetherViewTexts.codes} />;
  const codes = all ? together.data.codes : together.data.codes.slice(0, MOST);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2.5">
        <Choice
          label={togetherViewTexts.one}
          value={inOne}
          onChange={(event) => setInOne(event.target.value === 'line' ? 'line' : 'answer')}
        >
          <option value="answer">{togetherViewTexts.answer}</option>
          <option value="line">{togetherViewTexts.lineSettledAnswer}</option>
        </Choice>
        <Choice
          label={togetherViewTexts.shown}
          value={measure}
          onChange={(event) => setMeasure(event.target.value as Measure)}
        >
          {Object.entries(measures).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </Choice>
        {together.data.codes.length > MOST && (
          <label className="inline-flex items-center gap-2">
            <input type="checkbox" checked={all} onChange={() => setAll((was) => !was)} />{' '}
            {togetherViewTexts.allCodes(together.data.codes.length)}
          </label>
        )}
        <span className="ml-auto">
          <Menu
            name={
              <>
                <Download size={15} aria-hidden /> {togetherViewTexts.files}
              </>
            }
          >
            <MenuTitle>{togetherViewTexts.everyTwoCodesOccur}</MenuTitle>
            {(['xlsx', 'csv'] as const).map((format) => (
              <MenuFile
                key={format}
                name={format === 'xlsx' ? togetherViewTexts.workbookXlsx : togetherViewTexts.csv}
                about="with counts, Jaccard, phi and lift"
                address={togetherFileAddress(study.id, question.id, format, inOne)}
                isPage={false}
              />
            ))}
          </Menu>
        </span>
      </div>
      {codes.length < 2 ? (
        <EmptyState title={togetherViewTexts.noTwoCodesYet}>
          <p>{togetherViewTexts.whenSettledAnswersMention}</p>
        </EmptyState>
      ) : (
        <div className="list overflow-x-auto px-6 pb-8 max-sm:px-3">
          <Matrix
            codes={codes}
            weighted={together.data.weighted}
            measure={measure}
            codebook={codebook}
            onPair={(one, other) =>
              openDrawer({
                title: togetherViewTexts.with2(
                  one.name,
                  other.name,
                  inOne,
                  togetherViewTexts.oneLine,
                ),
                body: (
                  <AnswersBehind
                    key={one.id + other.id}
                    study={study}
                    question={question.id}
                    query={`by=none&counts=${together.data.counts}`}
                    cell={{ row: one.id, column: 'total', with: other.id, inOne }}
                    codebook={codebook}
                    counts={together.data.counts}
                  />
                ),
              })
            }
          />
          <p className="mt-4 max-w-prose text-[13px] text-soft">
            {togetherViewTexts.counts(ruleNames[together.data.counts])}
            {inOne === 'line' && togetherViewTexts.line}
            {together.data.weighted && togetherViewTexts.weightedUnweightedNumberShows}
            {togetherViewTexts.darkerCellMoreStands}{' '}
            <Term of="jaccard">{togetherViewTexts.jaccard}</Term>{' '}
            {togetherViewTexts.n1901PhiYule1912}
            <Term of="lift">{togetherViewTexts.lift}</Term> {togetherViewTexts.descriptionsTests}
          </p>
        </div>
      )}
    </>
  );
}

function Matrix({
  codes,
  weighted,
  measure,
  codebook,
  onPair,
}: {
  codes: Code[];
  weighted: boolean;
  measure: Measure;
  codebook: DrawnCodebook;
  onPair: (one: Code, other: Code) => void;
}) {
  const strengthOf = (code: Code, other: number) => {
    const value = code.cells[other]?.[measure] ?? 0;
    // as often as by chance is nothing to be seen
    return measure === 'lift' ? Math.max(0, value - 1) : Math.max(0, value);
  };
  const strongest = Math.max(
    ...codes.flatMap((code) => codes.map((_, other) => strengthOf(code, other))),
    1e-9,
  );
  return (
    <table className="border-separate border-spacing-0">
      <thead>
        <tr>
          <th className="sticky left-0 top-0 z-20 min-w-[210px] bg-paper" />
          {codes.map((code) => (
            <th
              key={code.id}
              scope="col"
              title={code.name}
              className="sticky top-0 z-10 h-36 w-12 min-w-12 border-b border-rule bg-paper align-bottom font-normal"
            >
              <span className="ml-auto block max-h-32 w-fit rotate-180 truncate pl-1 text-left [writing-mode:vertical-rl]">
                {code.name}
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {codes.map((code, c) => (
          <tr key={code.id}>
            <th
              scope="row"
              className="sticky left-0 z-[5] border-b border-rule bg-paper py-1 pr-3 text-left font-normal"
            >
              <span className="flex items-center gap-2">
                {codebook.byId.get(code.id) && (
                  <StitchMark look={codebook.byId.get(code.id)!.look} width={14} />
                )}
                {code.name}
              </span>
            </th>
            {codes.map((other, o) => {
              const cell = code.cells[o];
              if (!cell)
                return (
                  <td
                    key={other.id}
                    title={togetherViewTexts.of(
                      togetherViewTexts.mentionCounted(code.unweighted.found),
                      code.unweighted.n,
                      weighted,
                    )}
                    className="figures border-b border-rule px-1.5 py-1 text-right text-soft"
                  >
                    {c === o ? asCount(Math.round(code.found)) : '–'}
                  </td>
                );
              const value = cell[measure];
              const isNone = cell.unweighted === 0 && measure !== 'phi';
              const text =
                value === null
                  ? '–'
                  : measure === 'both'
                    ? asCount(Math.round(value))
                    : asShare(value);
              const depth = strengthOf(code, o) / strongest;
              return (
                <td
                  key={other.id}
                  className="figures border-b border-rule text-right"
                  style={{
                    backgroundColor: `color-mix(in srgb, var(--color-soft) ${Math.round(38 * depth)}%, transparent)`,
                  }}
                >
                  <button
                    type="button"
                    disabled={cell.unweighted === 0}
                    title={weighted ? `${asCount(cell.unweighted)} unweighted` : undefined}
                    aria-label={togetherViewTexts.with(code.name, other.name, text)}
                    className="block w-full px-1.5 py-1 text-right enabled:hover:bg-wash disabled:cursor-default"
                    onClick={() => onPair(code, other)}
                  >
                    {isNone ? <span className="text-soft">·</span> : text}
                  </button>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
