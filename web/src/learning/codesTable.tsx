import type { Trained, TrainedCode, Training, TrainingRun } from '@yellow-thread/contract';
import { modelVerdict } from '@yellow-thread/core/review';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { useRun } from '../data/learning.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Choice } from '../parts/field.js';
import { asShare } from '../parts/numbers.js';
import { ShareRange } from '../parts/range.js';
import { StitchMark } from '../parts/stitch.js';
import { verdictWords } from '../parts/verdictWords.js';
import { Term } from '../help/term.js';
import { Wide } from '../parts/wide.js';
import { NotLearnable } from './notLearnable.js';
import { CodeModel } from './codeModel.js';
import { Curve, gainWords } from './curve.js';
import { codesTableTexts } from './texts.js';

/** What a narrow window has no room for; the code's drawer has it. */
const onlyWide = 'hidden xl:table-cell';

type SortKey = 'name' | 'examples' | 'precision' | 'recall' | 'f1' | 'averagePrecision' | 'gain';

const valueOf: Record<Exclude<SortKey, 'name'>, (code: Trained) => number> = {
  examples: (code) => code.examples + code.decidedFor,
  precision: (code) => code.quality.precision,
  recall: (code) => code.quality.recall,
  f1: (code) => code.quality.f1,
  averagePrecision: (code) => code.quality.averagePrecision,
  gain: (code) => code.gain?.value ?? -1,
};

const heads: { key: SortKey; label: string; title: string; number?: boolean; wide?: boolean }[] = [
  { key: 'name', label: codesTableTexts.code, title: codesTableTexts.name },
  {
    key: 'examples',
    label: codesTableTexts.examples,
    title: codesTableTexts.settledAnswersCode,
    number: true,
  },
  {
    key: 'precision',
    label: codesTableTexts.precision,
    title: codesTableTexts.whatModelWouldSuggest,
  },
  {
    key: 'recall',
    label: codesTableTexts.recall,
    title: codesTableTexts.allAnswersMentionCode,
  },
  { key: 'f1', label: 'F1', title: codesTableTexts.rightFoundOneNumber, number: true },
  {
    key: 'averagePrecision',
    label: codesTableTexts.avgPrecision,
    title: codesTableTexts.averagePrecisionHowWell,
    number: true,
    wide: true,
  },
  {
    key: 'gain',
    label: codesTableTexts.n50MoreAnswers,
    title: codesTableTexts.whatCoding50More,
  },
];

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
  const [sort, setSort] = useState<{ key: SortKey; down: boolean }>({
    key: 'examples',
    down: true,
  });
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
  const trained = known
    .flatMap((code) => (code.state === 'too_few' ? [] : [code]))
    .sort((x, y) => {
      const byName = nameOf(x).localeCompare(nameOf(y));
      if (sort.key === 'name') return sort.down ? byName : -byName;
      const by = valueOf[sort.key](y) - valueOf[sort.key](x);
      return (sort.down ? by : -by) || byName;
    });
  const waiting = known
    .flatMap((code) => (code.state === 'too_few' && code.examples > 0 ? [code] : []))
    .sort((x, y) => y.examples - x.examples || nameOf(x).localeCompare(nameOf(y)));
  return (
    <>
      <Wide label={codesTableTexts.codes}>
        <table className="w-full">
          <thead className="border-b border-rule text-left text-soft">
            <tr>
              {heads.map(({ key, label, title, number, wide }) => (
                <th
                  key={key}
                  aria-sort={
                    sort.key === key ? (sort.down ? 'descending' : 'ascending') : undefined
                  }
                  className={`py-1.5 pr-4 font-normal ${number ? 'text-right' : ''} ${wide ? onlyWide : ''}`}
                >
                  <button
                    type="button"
                    title={title}
                    className="inline-flex items-center gap-1 rounded hover:text-ink"
                    onClick={() => setSort({ key, down: sort.key === key ? !sort.down : true })}
                  >
                    {label}
                    {sort.key === key &&
                      (sort.down ? (
                        <ArrowDown size={12} aria-hidden />
                      ) : (
                        <ArrowUp size={12} aria-hidden />
                      ))}
                  </button>
                </th>
              ))}
              <th className="py-1.5 pr-4 font-normal">{codesTableTexts.state}</th>
              <th className={`w-[16%] py-1.5 font-normal ${onlyWide}`}>{codesTableTexts.words}</th>
            </tr>
          </thead>
          <tbody>
            {trained.map((code) => (
              <CodeRow
                key={code.codeId}
                code={code}
                before={compared ? (before.get(code.codeId) ?? null) : undefined}
                drawn={codebook.byId.get(code.codeId)!}
                few={training.fewExamples}
              />
            ))}
          </tbody>
        </table>
      </Wide>
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
        unused={known.length - trained.length - waiting.length}
        fewest={training.fewestExamples}
        themes={run.themes}
        codebook={codebook}
      />
      <Confused run={run} codebook={codebook} />
    </>
  );
}

function CodeRow({
  code,
  before,
  drawn,
  few,
}: {
  code: Trained;
  /** In the run that is compared with: null where it had no model, undefined without such a run. */
  before: Trained | null | undefined;
  drawn: DrawnCode;
  few: number;
}) {
  const openDrawer = useDrawer();
  const { study, question } = useStudyLocation();
  const { quality } = code;
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="py-1.5 pr-4 text-left font-normal">
        <button
          type="button"
          className="flex items-center gap-2 rounded text-left hover:underline xl:whitespace-nowrap"
          onClick={() =>
            openDrawer({
              title: drawn.name,
              body: (
                <CodeModel codeId={code.codeId} drawn={drawn} study={study} question={question} />
              ),
            })
          }
        >
          <StitchMark look={drawn.look} />
          {drawn.name}
        </button>
      </th>
      <td className="figures py-1.5 pr-4 text-right">
        {code.examples}
        {code.decidedFor > 0 && (
          <span className="text-soft" title={codesTableTexts.manyAcceptedSuggestionsRead}>
            {' '}
            + {code.decidedFor}
          </span>
        )}
      </td>
      <td className="py-1.5 pr-4">
        <ShareRange
          label={codesTableTexts.right}
          value={quality.precision}
          interval={quality.precisionInterval}
        />
      </td>
      <td className="py-1.5 pr-4">
        <ShareRange
          label={codesTableTexts.found}
          value={quality.recall}
          interval={quality.recallInterval}
        />
      </td>
      <td className="figures whitespace-nowrap py-1.5 pr-4 text-right">
        {asShare(quality.f1)}
        {before !== undefined && (
          <span className="block text-[12px] text-soft">
            {before ? codesTableTexts.was(before.quality.f1) : codesTableTexts.noModel}
          </span>
        )}
      </td>
      <td className={`figures py-1.5 pr-4 text-right ${onlyWide}`}>
        {asShare(quality.averagePrecision)}
      </td>
      <td className="whitespace-nowrap py-1.5 pr-4" title={gainWords(code)}>
        <span className="flex items-center gap-2">
          <Curve code={code} />
          <span className="figures">
            {code.gain
              ? `${code.gain.value < 0 ? '−' : '+'}${asShare(Math.abs(code.gain.value))}`
              : ''}
          </span>
        </span>
      </td>
      <td
        className="whitespace-nowrap py-1.5 pr-4 text-[13px]"
        title={code.state === 'weak' ? codesTableTexts.underExamples(few) : undefined}
      >
        {verdictWords(modelVerdict(code.quality, code.state === 'weak'), code.threshold)}
      </td>
      <td className={`max-w-0 truncate py-1.5 font-serif text-[15px] ${onlyWide}`}>
        {code.wordsFor
          .slice(0, 5)
          .map((one) => one.word)
          .join(', ')}
      </td>
    </tr>
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
