import type { TrainedCode, Training } from '@yellow-thread/contract';
import { Link } from 'react-router';
import { useDrawnCodebook, type DrawnCode, type DrawnCodebook } from '../data/codebook.js';
import { useTrain, useTraining } from '../data/learning.js';
import { useJob } from '../data/sheets.js';
import { useDrawer } from '../frame/drawer.js';
import { usePlace } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { EmptyState, PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { asCount, asDate, asShare, counted } from '../parts/numbers.js';
import { ShareRange } from '../parts/range.js';
import { StitchMark } from '../parts/stitch.js';
import { CodeWords } from './codeWords.js';

/** Trains the models of a question, and says how good each is before anything is suggested. */
export function TrainStop() {
  const { study, question } = usePlace();
  const training = useTraining(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  if (training.isError) return <PageProblem error={training.error} />;
  if (!training.data || !codebook) return <Waiting what="the training" />;
  const { settled, run } = training.data;
  if (settled === 0)
    return (
      <EmptyState title="Nothing to learn from yet">
        <p>
          A model learns from answers that you have settled. Common practice is to code about 10% by
          hand first.
        </p>
        <Link to="../code?show=open" className="underline">
          Code some answers
        </Link>
      </EmptyState>
    );
  return (
    <main className="min-h-0 flex-1 overflow-y-auto px-6 py-5">
      <TrainHead training={training.data} study={study.id} question={question.id} />
      {run ? (
        <RunTable training={training.data} codes={run.codes} codebook={codebook} />
      ) : (
        <BeforeRun training={training.data} codebook={codebook} />
      )}
    </main>
  );
}

function TrainHead({
  training,
  study,
  question,
}: {
  training: Training;
  study: number;
  question: number;
}) {
  const train = useTrain(study, question);
  const { job, underWay, cancel } = useJob(study, train.data?.id ?? training.job?.id ?? null);
  const { run, settled, answered } = training;
  const fresh = run ? settled - run.settled : 0;
  return (
    <header className="mb-5 flex flex-wrap items-center gap-x-6 gap-y-3">
      <div className="min-w-0">
        <h1>What would help</h1>
        <p className="text-soft">
          Learns from {counted(settled, 'settled answer')} and the codebook’s words, for{' '}
          {counted(answered - settled, 'open answer')}.
          {run &&
            ` Last trained ${asDate(run.finishedAt)} on ${asCount(run.settled)}${
              fresh > 0 ? `; ${asCount(fresh)} settled since` : ''
            }.`}
        </p>
      </div>
      <div className="ml-auto flex items-center gap-3">
        {underWay && (
          <>
            <progress
              aria-label="Training"
              className="h-1.5 w-32 accent-thread"
              value={job?.progress?.done ?? 0}
              max={job?.progress?.of ?? 1}
            />
            <Button onClick={cancel}>Cancel</Button>
          </>
        )}
        <Button
          look={fresh > 0 || !run ? 'main' : 'plain'}
          disabled={underWay || train.isPending}
          onClick={() => train.mutate()}
        >
          {underWay ? 'Training …' : run ? 'Train again' : 'Train'}
        </Button>
      </div>
      {train.error && <ProblemNote error={train.error} />}
      {job?.problem && (
        <p role="alert" className="w-full text-brick">
          {job.problem.sentence}
        </p>
      )}
    </header>
  );
}

function RunTable({
  training,
  codes,
  codebook,
}: {
  training: Training;
  codes: TrainedCode[];
  codebook: DrawnCodebook;
}) {
  const openDrawer = useDrawer();
  const known = codes.filter((code) => codebook.byId.has(code.codeId));
  const trained = known
    .flatMap((code) => (code.state === 'too_few' ? [] : [code]))
    .sort((x, y) => y.examples - x.examples);
  const waiting = known
    .filter((code) => code.state === 'too_few' && code.examples > 0)
    .sort((x, y) => y.examples - x.examples);
  const unused = known.length - trained.length - waiting.length;
  return (
    <>
      <table className="w-full">
        <thead className="border-b border-rule text-left text-soft">
          <tr>
            <th className="py-1.5 pr-4 font-normal">Code</th>
            <th className="py-1.5 pr-4 text-right font-normal">examples</th>
            <th className="py-1.5 pr-4 font-normal">
              <span title="Of what the model would suggest at its line, the share that is right">
                right (precision)
              </span>
            </th>
            <th className="py-1.5 pr-4 font-normal">
              <span title="Of all answers that mention the code, the share that the model finds">
                found (recall)
              </span>
            </th>
            <th className="py-1.5 pr-4 text-right font-normal">F1</th>
            <th className="py-1.5 pr-4 font-normal">state</th>
            <th className="w-[26%] py-1.5 font-normal">words for it</th>
          </tr>
        </thead>
        <tbody>
          {trained.map((code) => {
            const drawn = codebook.byId.get(code.codeId)!;
            return (
              <tr key={code.codeId} className="border-b border-rule">
                <th scope="row" className="py-1.5 pr-4 text-left font-normal">
                  <button
                    type="button"
                    className="flex items-center gap-2 rounded text-left hover:underline"
                    onClick={() =>
                      openDrawer({
                        title: drawn.name,
                        body: <CodeWords code={code} definition={drawn.definition} />,
                      })
                    }
                  >
                    <StitchMark look={drawn.look} />
                    {drawn.name}
                  </button>
                </th>
                <td className="figures py-1.5 pr-4 text-right">{code.examples}</td>
                <td className="py-1.5 pr-4">
                  <ShareRange
                    label="right"
                    value={code.quality.precision}
                    interval={code.quality.precisionInterval}
                  />
                </td>
                <td className="py-1.5 pr-4">
                  <ShareRange
                    label="found"
                    value={code.quality.recall}
                    interval={code.quality.recallInterval}
                  />
                </td>
                <td className="figures py-1.5 pr-4 text-right">{asShare(code.quality.f1)}</td>
                <td className="whitespace-nowrap py-1.5 pr-4">
                  {stateWords(code, training.fewExamples)}
                </td>
                <td className="max-w-0 truncate py-1.5 font-serif text-[15px]">
                  {code.wordsFor
                    .slice(0, 5)
                    .map((one) => one.word)
                    .join(', ')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-3 text-[13px] text-soft">
        Measured on settled answers that the model had not seen; the lines are 95% intervals.
      </p>
      <NotLearnable
        codes={waiting.map((code) => ({ ...code, drawn: codebook.byId.get(code.codeId)! }))}
        unused={unused}
        fewest={training.fewestExamples}
      />
    </>
  );
}

function stateWords(code: Exclude<TrainedCode, { state: 'too_few' }>, few: number): string {
  if (code.state === 'weak') return `little evidence (under ${few})`;
  if (code.quality.precision >= 0.8 && code.quality.recall >= 0.6) return 'good';
  return `usable above ${asShare(code.line)}`;
}

function NotLearnable({
  codes,
  unused,
  fewest,
}: {
  codes: { codeId: string; examples: number; drawn: DrawnCode }[];
  unused: number;
  fewest: number;
}) {
  if (codes.length === 0 && unused === 0) return null;
  return (
    <section className="mt-6" aria-labelledby="not-yet">
      <h2 id="not-yet">Not learnable yet</h2>
      <p className="text-soft">A code needs {fewest} settled examples before it gets a model.</p>
      <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-x-6">
        {codes.map(({ codeId, examples, drawn }) => (
          <li key={codeId} className="flex items-center gap-2 py-1">
            <StitchMark look={drawn.look} />
            <span className="min-w-0 truncate">{drawn.name}</span>
            <span className="figures ml-auto text-soft">
              {examples} of {fewest}
            </span>
          </li>
        ))}
      </ul>
      {unused > 0 && (
        <p className="mt-2 text-soft">
          {counted(unused, 'code')} of the codebook {unused === 1 ? 'has' : 'have'} no example in
          this question.
        </p>
      )}
    </section>
  );
}

function BeforeRun({ training, codebook }: { training: Training; codebook: DrawnCodebook }) {
  const ready = training.examples.filter((one) => one.examples >= training.fewestExamples).length;
  const waiting = training.examples
    .filter((one) => one.examples < training.fewestExamples && codebook.byId.has(one.codeId))
    .sort((x, y) => y.examples - x.examples)
    .map((one) => ({ ...one, drawn: codebook.byId.get(one.codeId)! }));
  return (
    <>
      <p>
        {ready === 0
          ? 'No code has enough settled examples yet: training would find nothing to learn.'
          : `${counted(ready, 'code')} ${ready === 1 ? 'has' : 'have'} enough settled examples.`}
      </p>
      <NotLearnable codes={waiting} unused={0} fewest={training.fewestExamples} />
    </>
  );
}
