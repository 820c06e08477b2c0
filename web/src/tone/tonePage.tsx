import type { ToneModel, ToneOverview } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../data/sheets.js';
import { useDrawToneSample, useTone, useToneBatch, useTrainTone } from '../data/tone.js';
import { stopPath, useStudyLocation } from '../frame/studyLocation.js';
import { useView, ViewTabs } from '../frame/viewTabs.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { JobProblem, JobProgress } from '../parts/jobProgress.js';
import { EmptyState, PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { ShareRange } from '../parts/range.js';
import { toneLinesTexts, toneNames, tonePageTexts as texts } from './texts.js';
import { ToneLines } from './toneLines.js';

const views = [
  { key: 'proposals', name: texts.proposals },
  { key: 'sample', name: texts.sample },
] as const;

/** The tone of a question's lines: proposals to be checked, and the random sample that a report rests on. */
export function TonePage() {
  const { study, question } = useStudyLocation();
  const tone = useTone(study.id, question.id);
  const view = useView(views);
  if (tone.isError) return <PageProblem error={tone.error} />;
  if (!tone.data) return <Waiting what={texts.theTone} />;
  return (
    <main className="work-list flex flex-col">
      <ToneHead tone={tone.data} />
      <ViewTabs label={texts.views} views={views} view={view}>
        <Link
          to={`${stopPath(study.id, 'report', question.id)}?view=tone`}
          className="ml-auto py-1.5 underline"
        >
          {texts.report}
        </Link>
      </ViewTabs>
      {view === 'proposals' ? (
        <Proposals key={question.id} />
      ) : (
        <Sample key={question.id} tone={tone.data} />
      )}
    </main>
  );
}

const sumOf = (counts: ToneOverview['checked']) =>
  Object.values(counts).reduce((sum, one) => sum + one, 0);

function ToneHead({ tone }: { tone: ToneOverview }) {
  const { study, question } = useStudyLocation();
  const train = useTrainTone(study.id, question.id);
  const { job, underWay, cancel } = useJob(
    study.id,
    train.data?.id ?? tone.job?.id ?? null,
    tone.job,
  );
  const { lines, proposed, checked, agreed, source, model, checkedSince } = tone;
  return (
    <header className="flex flex-wrap items-start gap-x-8 gap-y-3 px-6 py-3 max-sm:px-3">
      <div className="min-w-0 max-w-[62ch] flex-1 basis-96">
        <h1>{texts.tone}</h1>
        <p className="figures">
          {texts.lines(lines, sumOf(checked))} {texts.agreed(agreed.right, agreed.of)}{' '}
          {texts.proposed(source, proposed)}
        </p>
        <p className="text-[13px] text-soft">{texts.limits[source]}</p>
        <details>
          <summary className="text-[13px] text-soft">{texts.more}</summary>
          <p className="mt-1 text-[13px] text-soft">{texts.about}</p>
        </details>
      </div>
      <section className="flex flex-col gap-1" aria-label={texts.train}>
        {model ? (
          <>
            <p className="figures text-[13px] text-soft">
              {texts.trained(model.trainedAt, model.checked, checkedSince)}
            </p>
            <Measured name={toneNames.positive} of={model.positive} />
            <Measured name={toneNames.negative} of={model.negative} />
          </>
        ) : (
          <p className="max-w-[40ch] text-[13px] text-soft">{texts.notTrained}</p>
        )}
        {underWay ? (
          <JobProgress label={texts.training} job={job} onCancel={cancel} />
        ) : (
          <Button
            className="self-start"
            disabled={sumOf(checked) === 0}
            onClick={() => train.mutate()}
          >
            {texts.train}
          </Button>
        )}
        {train.isError && <ProblemNote error={train.error} />}
        <JobProblem job={job} />
      </section>
    </header>
  );
}

/** How well the model of a tone does on lines that it did not see. */
function Measured({ name, of }: { name: string; of: ToneModel['positive'] }) {
  if (!of) return <p className="text-[13px] text-soft">{texts.tooFew(name)}</p>;
  const { quality } = of;
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-[13px]">
      <span className="w-16">{name}</span>
      <span className="text-soft">{texts.right}</span>
      <ShareRange
        label={`${name}, ${texts.right}`}
        value={quality.precision}
        interval={quality.precisionInterval}
      />
      <span className="text-soft">{texts.found}</span>
      <ShareRange
        label={`${name}, ${texts.found}`}
        value={quality.recall}
        interval={quality.recallInterval}
      />
    </p>
  );
}

const sizes = [10, 20, 50, 100];

function Proposals() {
  const { study, question } = useStudyLocation();
  const [limit, setLimit] = useState(20);
  const batch = useToneBatch(study.id, question.id, limit);
  if (batch.isError) return <PageProblem error={batch.error} />;
  if (!batch.data) return <Waiting what={texts.theTone} />;
  const { proposals } = batch.data;
  if (proposals.length === 0)
    return (
      <EmptyState title={toneLinesTexts.noneProposed}>
        <p>{toneLinesTexts.noneProposedWhy}</p>
      </EmptyState>
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-6 px-6 py-2 max-sm:px-3">
        <Choice
          label={toneLinesTexts.howMany}
          value={limit}
          onChange={({ target }) => setLimit(Number(target.value))}
        >
          {sizes.map((size) => (
            <option key={size}>{size}</option>
          ))}
        </Choice>
        <span className="text-[13px] text-soft">{toneLinesTexts.checkKeys}</span>
      </div>
      <ToneLines key={batch.dataUpdatedAt} lines={proposals} onNext={() => void batch.refetch()} />
    </>
  );
}

const READ_AT_A_TIME = 100;

function Sample({ tone: { sample } }: { tone: ToneOverview }) {
  const { study, question } = useStudyLocation();
  const batch = useToneBatch(study.id, question.id, READ_AT_A_TIME);
  if (batch.isError) return <PageProblem error={batch.error} />;
  if (!batch.data) return <Waiting what={texts.theTone} />;
  const { toRead } = batch.data;
  if (toRead.length === 0)
    return (
      <EmptyState
        title={
          sample.answers === 0
            ? toneLinesTexts.noSample
            : toneLinesTexts.sampleStands(sample.read, sample.answers)
        }
      >
        <p>
          {sample.answers === 0
            ? toneLinesTexts.noSampleWhy
            : toneLinesTexts.readAll(sample.answers)}
        </p>
        <DrawSample />
      </EmptyState>
    );
  return (
    <>
      <p className="figures px-6 py-2 text-soft max-sm:px-3" role="status">
        {toneLinesTexts.sampleStands(sample.read, sample.answers)}
        <span className="ml-6 text-[13px]">{toneLinesTexts.readKeys}</span>
      </p>
      <ToneLines key={batch.dataUpdatedAt} lines={toRead} onNext={() => void batch.refetch()} />
    </>
  );
}

const sampleSizes = [30, 60, 100, 200];

function DrawSample() {
  const { study, question } = useStudyLocation();
  const draw = useDrawToneSample(study.id, question.id);
  const [size, setSize] = useState(60);
  return (
    <span className="flex flex-wrap items-center gap-3">
      <Choice
        label={toneLinesTexts.size}
        value={size}
        onChange={({ target }) => setSize(Number(target.value))}
      >
        {sampleSizes.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </Choice>
      <Button look="main" disabled={draw.isPending} onClick={() => draw.mutate(size)}>
        {toneLinesTexts.draw(size)}
      </Button>
      {draw.isError && <ProblemNote error={draw.error} />}
    </span>
  );
}
