import type { Trained, TrainedCode, Training, TrainingRun } from '@yellow-thread/contract';
import { modelVerdict } from '@yellow-thread/core/review';
import { createColumnHelper, type ColumnDef } from '@tanstack/react-table';
import { useState } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { useRun } from '../data/learning.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Choice } from '../parts/field.js';
import { asShare } from '../lib/numbers.js';
import { ShareRange } from '../parts/range.js';
import { StitchMark } from '../parts/stitch.js';
import { verdictWords } from '../parts/verdictWords.js';
import { Term } from '../help/term.js';
import { SortedTable } from '../parts/sortedTable.js';
import { NotLearnable } from './notLearnable.js';
import { CodeModel } from './codeModel.js';
import { Curve, gainWords } from './curve.js';
import { codesTableTexts } from './texts.js';

/** What a narrow window has no room for; the code's drawer has it. */
const onlyWide = 'hidden xl:table-cell';

/** A code's model, and how it stood in the run that is compared with. */
interface Row {
  code: Trained;
  drawn: DrawnCode;
  /** Null where it had no model then, undefined without such a run. */
  before: Trained | null | undefined;
  few: number;
}

const helper = createColumnHelper<Row>();
const number = 'figures text-right';

const columns = [
  helper.accessor(({ drawn }) => drawn.name, {
    id: 'name',
    header: codesTableTexts.code,
    meta: { title: codesTableTexts.name, isRowHead: true },
    sortingFn: (x, y) => x.original.drawn.name.localeCompare(y.original.drawn.name),
    sortDescFirst: false,
    cell: ({ row }) => <CodeName {...row.original} />,
  }),
  helper.accessor(({ code }) => code.examples + code.decidedFor, {
    id: 'examples',
    header: codesTableTexts.examples,
    meta: {
      title: codesTableTexts.settledAnswersCode,
      headClassName: 'text-right',
      className: number,
    },
    cell: ({ row }) => <Examples {...row.original} />,
  }),
  helper.accessor(({ code }) => code.quality.precision, {
    id: 'precision',
    header: codesTableTexts.precision,
    meta: { title: codesTableTexts.whatModelWouldSuggest },
    cell: ({ row: { original } }) => (
      <ShareRange
        label={codesTableTexts.right}
        value={original.code.quality.precision}
        interval={original.code.quality.precisionInterval}
      />
    ),
  }),
  helper.accessor(({ code }) => code.quality.recall, {
    id: 'recall',
    header: codesTableTexts.recall,
    meta: { title: codesTableTexts.allAnswersMentionCode },
    cell: ({ row: { original } }) => (
      <ShareRange
        label={codesTableTexts.found}
        value={original.code.quality.recall}
        interval={original.code.quality.recallInterval}
      />
    ),
  }),
  helper.accessor(({ code }) => code.quality.f1, {
    id: 'f1',
    header: 'F1',
    meta: {
      title: codesTableTexts.rightFoundOneNumber,
      headClassName: 'text-right',
      className: `${number} whitespace-nowrap`,
    },
    cell: ({ row }) => <F1 {...row.original} />,
  }),
  helper.accessor(({ code }) => code.quality.averagePrecision, {
    id: 'averagePrecision',
    header: codesTableTexts.avgPrecision,
    meta: {
      title: codesTableTexts.averagePrecisionHowWell,
      headClassName: `text-right ${onlyWide}`,
      className: `${number} ${onlyWide}`,
    },
    cell: ({ getValue }) => asShare(getValue()),
  }),
  helper.accessor(({ code }) => code.gain?.value ?? -1, {
    id: 'gain',
    header: codesTableTexts.n50MoreAnswers,
    meta: { title: codesTableTexts.whatCoding50More, className: 'whitespace-nowrap' },
    cell: ({ row }) => <Gain {...row.original} />,
  }),
  helper.display({
    id: 'state',
    header: codesTableTexts.state,
    meta: { className: 'whitespace-nowrap text-[13px]' },
    cell: ({ row: { original } }) => <State {...original} />,
  }),
  helper.display({
    id: 'words',
    header: codesTableTexts.words,
    meta: {
      headClassName: `w-[16%] ${onlyWide}`,
      className: `max-w-0 truncate font-serif text-[15px] ${onlyWide}`,
    },
    cell: ({ row: { original } }) =>
      original.code.wordsFor
        .slice(0, 5)
        .map((one) => one.word)
        .join(', '),
  }),
] as ColumnDef<Row, never>[];

function CodeName({ code, drawn }: Row) {
  const openDrawer = useDrawer();
  const { study, question } = useStudyLocation();
  return (
    <button
      type="button"
      className="flex items-center gap-2 rounded text-left hover:underline xl:whitespace-nowrap"
      onClick={() =>
        openDrawer({
          title: drawn.name,
          body: <CodeModel codeId={code.codeId} drawn={drawn} study={study} question={question} />,
        })
      }
    >
      <StitchMark look={drawn.look} />
      {drawn.name}
    </button>
  );
}

const Examples = ({ code }: Row) => (
  <>
    {code.examples}
    {code.decidedFor > 0 && (
      <span className="text-soft" title={codesTableTexts.manyAcceptedSuggestionsRead}>
        {' '}
        + {code.decidedFor}
      </span>
    )}
  </>
);

const F1 = ({ code, before }: Row) => (
  <>
    {asShare(code.quality.f1)}
    {before !== undefined && (
      <span className="block text-[12px] text-soft">
        {before ? codesTableTexts.was(before.quality.f1) : codesTableTexts.noModel}
      </span>
    )}
  </>
);

const Gain = ({ code }: Row) => (
  <span className="flex items-center gap-2" title={gainWords(code)}>
    <Curve code={code} />
    <span className="figures">
      {code.gain ? `${code.gain.value < 0 ? '−' : '+'}${asShare(Math.abs(code.gain.value))}` : ''}
    </span>
  </span>
);

const State = ({ code, few }: Row) => (
  <span title={code.state === 'weak' ? codesTableTexts.underExamples(few) : undefined}>
    {verdictWords(modelVerdict(code.quality, code.state === 'weak'), code.threshold)}
  </span>
);

/** A run's models, a row a code. */
export function CodesTable({
  training,
  run,
  codebook,
}: {
  training: Training;
  run: TrainingRun;
  codebook: DrawnCodebook;
}) {
  const others = training.runs.filter((one) => one.id !== run.id);
  const [against, setAgainst] = useState<number | null>(others[0]?.id ?? null);
  const { study, question } = useStudyLocation();
  const compared = useRun(study.id, question.id, against).data;
  const before = new Map(
    compared?.codes.flatMap((code) =>
      code.state === 'too_few' ? [] : [[code.codeId, code] as const],
    ),
  );
  const known = run.codes.filter((code) => codebook.byId.has(code.codeId));
  const nameOf = (code: TrainedCode) => codebook.byId.get(code.codeId)!.name;
  const inOrder = known.toSorted((x, y) => nameOf(x).localeCompare(nameOf(y)));
  const rows = inOrder.flatMap((code): Row[] =>
    code.state === 'too_few'
      ? []
      : [
          {
            code,
            drawn: codebook.byId.get(code.codeId)!,
            before: compared ? (before.get(code.codeId) ?? null) : undefined,
            few: training.fewExamples,
          },
        ],
  );
  const waiting = known
    .flatMap((code) => (code.state === 'too_few' && code.examples > 0 ? [code] : []))
    .sort((x, y) => y.examples - x.examples || nameOf(x).localeCompare(nameOf(y)));
  return (
    <>
      <SortedTable
        label={codesTableTexts.codes}
        columns={columns}
        rows={rows}
        idOf={({ code }) => code.codeId}
        initial="examples"
      />
      <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2 text-[13px] text-soft">
        <p>
          <Term of="precision">{codesTableTexts.precision2}</Term> {codesTableTexts.and}{' '}
          <Term of="recall">{codesTableTexts.recall}</Term>{' '}
          {codesTableTexts.measuredSettledAnswersModel}
          <Term of="out-of-fold">{codesTableTexts.outFold}</Term>
          {codesTableTexts.lines95} <Term of="interval">{codesTableTexts.intervals}</Term>.
        </p>
        {others.length > 0 && (
          <span className="ml-auto">
            <Choice
              label={codesTableTexts.compare}
              value={against ?? ''}
              onChange={(event) => setAgainst(Number(event.target.value) || null)}
            >
              <option value="">{codesTableTexts.noOtherRun}</option>
              {others.map((one) => (
                <option key={one.id} value={one.id}>
                  {codesTableTexts.run(one.id, one.settled)}
                </option>
              ))}
            </Choice>
          </span>
        )}
      </div>
      <NotLearnable
        codes={waiting.map((code) => ({ ...code, drawn: codebook.byId.get(code.codeId)! }))}
        unused={known.length - rows.length - waiting.length}
        fewest={training.fewestExamples}
        themes={run.themes}
        codebook={codebook}
      />
      <Confused run={run} codebook={codebook} />
    </>
  );
}

/** Codes that the models take for each other: their definitions may want sharpening. */
function Confused({ run, codebook }: { run: TrainingRun; codebook: DrawnCodebook }) {
  const pairs = run.confused.flatMap(({ codeId, takenFor, answers }) => {
    const [missed, seen] = [codebook.byId.get(codeId), codebook.byId.get(takenFor)];
    return missed && seen ? [{ missed, seen, answers }] : [];
  });
  if (pairs.length === 0) return null;
  return (
    <section className="mt-6" aria-labelledby="confused">
      <h2 id="confused">{codesTableTexts.oftenConfused}</h2>
      <p className="text-soft">{codesTableTexts.wherePersonGaveFirst}</p>
      <ul className="mt-2">
        {pairs.map(({ missed, seen, answers }) => (
          <li key={`${missed.id} ${seen.id}`} className="flex items-center gap-2 py-1">
            <StitchMark look={missed.look} />
            {missed.name}
            <span className="text-soft">{codesTableTexts.for}</span>
            <StitchMark look={seen.look} />
            {seen.name}
            <span className="figures text-soft">{codesTableTexts.in(answers)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
