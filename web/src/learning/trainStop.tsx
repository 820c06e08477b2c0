import type { Progress, StudyDetail, Training } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAddressPart } from '../frame/address.js';
import { useDrawnCodebook, type DrawnCodebook } from '../data/codebook.js';
import { useGroups } from '../data/groups.js';
import { useTrain, useTraining } from '../data/learning.js';
import { useVariable } from '../data/respondents.js';
import { useRestriction } from '../data/restriction.js';
import { useJob } from '../data/sheets.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { EmptyState, PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { ProgressLine } from '../parts/progressLine.js';
import { MeaningProgress } from '../studyParts/meaningProgress.js';
import { CodesTable } from './codesTable.js';
import { NextBatch } from './nextBatch.js';
import { NotLearnable } from './notLearnable.js';
import { Runs } from './runs.js';
import { Shares } from './shares.js';
import { trainStopTexts } from './texts.js';

const views = [
  { key: 'codes', name: trainStopTexts.codeCode },
  { key: 'shares', name: trainStopTexts.estimatedShares },
  { key: 'next', name: trainStopTexts.whatCodeNext },
  { key: 'runs', name: trainStopTexts.runs },
] as const;

/** Trains the models of a question, and says how good each is before anything is suggested. */
export function TrainStop() {
  const { study, question } = useStudyLocation();
  const training = useTraining(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  const [asked] = useAddressPart('view');
  if (training.isError) return <PageProblem error={training.error} />;
  if (!training.data || !codebook) return <Waiting what={trainStopTexts.training} />;
  const { settled, run, runs } = training.data;
  if (settled === 0)
    return (
      <EmptyState title={trainStopTexts.nothingLearnYet}>
        <p>{trainStopTexts.modelLearnsAnswersYou}</p>
        <Link to="../code?show=open" className="underline">
          {trainStopTexts.codeSomeAnswers}
        </Link>
      </EmptyState>
    );
  const view = views.find(({ key }) => key === asked)?.key ?? 'codes';
  const shown = { training: training.data, codebook };
  return (
    <main className="work px-6 py-5 max-sm:px-4">
      <TrainHead training={training.data} study={study} question={question.id} />
      {run ? (
        <>
          <nav
            aria-label={trainStopTexts.training2}
            className="mb-4 flex gap-6 border-b border-rule"
          >
            {views.map(({ key, name }) => (
              <Link
                key={key}
                to={key === 'codes' ? '?' : `?view=${key}`}
                aria-current={view === key ? 'page' : undefined}
                className={`-mb-px border-b-2 py-1.5 ${view === key ? 'border-thread' : 'border-transparent text-soft hover:text-ink'}`}
              >
                {name}
              </Link>
            ))}
          </nav>
          {view === 'codes' && <CodesTable key={run.id} run={run} {...shown} />}
          {view === 'shares' && <Shares run={run} {...shown} />}
          {view === 'next' && <NextBatch {...shown} />}
          {view === 'runs' && <Runs runs={runs} />}
        </>
      ) : (
        <BeforeRun {...shown} />
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
  study: StudyDetail;
  question: number;
}) {
  const within = useRestriction(study.id);
  const train = useTrain(study.id, question);
  const [scope, setScope] = useState(within ? `among=${within}` : (training.run?.scope ?? ''));
  const [learnFromBulk, setLearnFromBulk] = useState(training.run?.learntFromBulk ?? false);
  const { job, underWay, cancel } = useJob(
    study.id,
    train.data?.id ?? training.job?.id ?? null,
    training.job,
  );
  const { run, settled, answered } = training;
  const fresh = run ? settled - run.settled : 0;
  return (
    <header className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-3">
      <div className="min-w-0">
        <h1>{trainStopTexts.whatWouldHelp}</h1>
        <p className="text-soft">
          {trainStopTexts.learnsCodebooksWords(settled, howChosen(training))}
          {within && trainStopTexts.modelsLearnEverybodyGroup}
          {run && trainStopTexts.lastTrained(run.finishedAt, run.settled, fresh)}
        </p>
        <MeaningProgress study={study.id} />
        {training.unreadInBulk > 0 && (
          <label
            className="flex items-center gap-2 text-soft"
            title={trainStopTexts.modelsOwnGuessesLearning}
          >
            <input
              type="checkbox"
              className="accent-thread"
              checked={learnFromBulk}
              disabled={underWay}
              onChange={(event) => setLearnFromBulk(event.target.checked)}
            />
            {trainStopTexts.learnAlsoBulkNobody(training.unreadInBulk)}
          </label>
        )}
      </div>
      <div className="ml-auto flex min-w-0 flex-wrap items-center gap-3">
        {underWay ? (
          <>
            <span className="flex w-48">
              <ProgressLine
                label={underWayWith(job?.progress?.codes)}
                share={job?.progress ? job.progress.done / job.progress.of : null}
              />
            </span>
            <Button onClick={cancel}>{trainStopTexts.cancel}</Button>
          </>
        ) : (
          <Scope study={study} open={answered - settled} value={scope} onChange={setScope} />
        )}
        <Button
          look={fresh > 0 || !run ? 'main' : 'plain'}
          disabled={underWay || train.isPending}
          onClick={() => train.mutate({ scope, learnFromBulk })}
        >
          {underWay
            ? trainStopTexts.training3
            : run
              ? trainStopTexts.trainAgain
              : trainStopTexts.train}
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

/** What a training is at. */
function underWayWith(codes: Progress['codes']): string {
  if (!codes || codes.of === 0) return trainStopTexts.training2;
  if (codes.done === codes.of) return trainStopTexts.readingAllAnswers;
  return trainStopTexts.learnt(codes.done, codes.of);
}

/** How the settled answers came to be chosen: only those drawn at random can carry estimates. */
function howChosen({ settled, settledInRandom, settledInTelling }: Training): string {
  const rest = settled - settledInRandom - settledInTelling;
  return [
    settledInRandom > 0 && trainStopTexts.drawnRandom(settledInRandom),
    settledInTelling > 0 && trainStopTexts.mostTelling(settledInTelling),
    rest > 0 && trainStopTexts.noSample(rest),
  ]
    .filter(Boolean)
    .join(', ');
}

/** Which answers may get suggestions: all that are open, those in the sample, or those of one kind of respondent. */
function Scope({
  study,
  open,
  value,
  onChange,
}: {
  study: StudyDetail;
  open: number;
  value: string;
  onChange: (scope: string) => void;
}) {
  const groups = useGroups(study.id).data?.groups ?? [];
  const categories = study.variables.filter((one) => one.kind === 'category');
  return (
    <Choice
      label={trainStopTexts.suggest}
      className="max-w-56"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">{trainStopTexts.allOpenAnswers(open)}</option>
      <option value="show=unread">{trainStopTexts.whatNobodyWorked}</option>
      <option value="show=sample">{trainStopTexts.sampleOnly}</option>
      {groups.map(({ id, name }) => (
        <option key={id} value={`among=${id}`}>
          {trainStopTexts.group(name)}
        </option>
      ))}
      {categories.map((variable) => (
        <ScopeOf key={variable.id} study={study.id} {...variable} />
      ))}
    </Choice>
  );
}

function ScopeOf({ study, id, name }: { study: number; id: number; name: string }) {
  const categories = useVariable(study, id).data?.categories ?? [];
  const labels = [...new Set(categories.map((one) => one.label))];
  return (
    <optgroup label={name}>
      {labels.map((label) => (
        <option key={label} value={new URLSearchParams({ where: `${id}:${label}` }).toString()}>
          {label}
        </option>
      ))}
    </optgroup>
  );
}

function BeforeRun({ training, codebook }: { training: Training; codebook: DrawnCodebook }) {
  const ready = training.examples.filter((one) => one.examples >= training.fewestExamples).length;
  const waiting = training.examples
    .filter((one) => one.examples < training.fewestExamples && codebook.byId.has(one.codeId))
    .map((one) => ({ ...one, drawn: codebook.byId.get(one.codeId)! }));
  return (
    <>
      <p>
        {ready === 0
          ? trainStopTexts.noCodeEnoughSettled
          : trainStopTexts.enoughSettledExamples(ready)}
      </p>
      <NotLearnable
        codes={waiting}
        unused={0}
        fewest={training.fewestExamples}
        themes={[]}
        codebook={codebook}
      />
    </>
  );
}
