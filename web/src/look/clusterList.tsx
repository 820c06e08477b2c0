import type { AnswerClusters, FoundCluster } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import {
  useAnswerClusters,
  useBringClusterBack,
  useDecideCluster,
  useGatherAnswers,
} from '../data/look.js';
import { useJob } from '../data/sheets.js';
import { useAddressPart } from '../frame/address.js';
import { useDrawer } from '../frame/drawer.js';
import { stopPath, useStudyLocation } from '../frame/studyLocation.js';
import { Term } from '../help/term.js';
import { asShare } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { JobProblem, JobProgress } from '../parts/jobProgress.js';
import { EmptyState, ProblemNote, Waiting } from '../parts/notices.js';
import { AnswerList } from './answerList.js';
import { clusterListTexts as texts } from './texts.js';

const MOST = 20;

/** Answers gathered by likeness: to begin with, and later a check for what was missed. */
export function ClusterList() {
  const { study, question } = useStudyLocation();
  const [asked, ask] = useAddressPart('clusters');
  const k = asked === null ? null : Number(asked);
  const found = useAnswerClusters(study.id, question.id, k);
  const { data } = found;
  if (found.isError) return <ProblemNote error={found.error} />;
  if (!data) return <Waiting what={texts.gathering} />;
  const isAll = data.among === 'all';
  const title = isAll ? texts.all : texts.missed;
  return (
    <section aria-label={title}>
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h2>{title}</h2>
        {data.answers > 1 && (
          <label className="inline-flex flex-wrap items-center gap-x-2">
            <span className="text-soft">{texts.number}</span>
            <span className="text-[13px] text-soft">{texts.together}</span>
            <input
              type="range"
              min={2}
              max={MOST}
              value={k ?? Math.max(2, data.found)}
              aria-valuetext={k === null ? texts.fitting(data.found) : String(k)}
              onChange={({ target }) => ask(target.value)}
            />
            <span className="text-[13px] text-soft">{texts.apart}</span>
            <span className="figures min-w-6">{k ?? data.found}</span>
          </label>
        )}
        {k !== null && (
          <Button look="plain" className="!py-0.5" onClick={() => ask(null)}>
            {texts.asManyAsFit}
          </Button>
        )}
      </div>
      <p className="figures mt-1 max-w-prose text-[13px] text-soft">
        {isAll ? texts.allAbout(data.answers) : texts.missedAbout(data.answers)}{' '}
        {data.isGathered && (
          <>
            {data.compared < data.answers && texts.compared(data.compared)}{' '}
            <Term of="silhouette">{texts.silhouette(asShare(data.silhouette))}</Term>
          </>
        )}
      </p>
      {!data.isGathered ? (
        <Gather data={data} k={k} />
      ) : data.clusters.length === 0 ? (
        <EmptyState title={texts.none}>
          <p>{texts.noneWhy}</p>
        </EmptyState>
      ) : (
        <ul className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(min(100%,400px),1fr))] gap-x-10 gap-y-5">
          {data.clusters.map((cluster) => (
            <Cluster key={cluster.responseIds[0]} cluster={cluster} />
          ))}
        </ul>
      )}
      <Decided decided={data.decided} />
    </section>
  );
}

/** So many answers that gathering them is a job of its own. */
function Gather({ data, k }: { data: AnswerClusters; k: number | null }) {
  const { study, question } = useStudyLocation();
  const gather = useGatherAnswers(study.id, question.id);
  const { job, underWay, cancel } = useJob(
    study.id,
    gather.data?.id ?? data.job?.id ?? null,
    data.job,
  );
  return (
    <div className="mt-3 flex max-w-lg flex-col items-start gap-3">
      <p>{texts.many(data.answers)}</p>
      {underWay ? (
        <JobProgress label={texts.underWay} job={job} onCancel={cancel} />
      ) : (
        <Button look="main" disabled={gather.isPending} onClick={() => gather.mutate(k)}>
          {texts.gather}
        </Button>
      )}
      {gather.isError && <ProblemNote error={gather.error} />}
      <JobProblem job={job} />
    </div>
  );
}

function Cluster({ cluster }: { cluster: FoundCluster }) {
  const { study, question } = useStudyLocation();
  const { name, responseIds, typical, edge } = cluster;
  const [isNaming, setNaming] = useState(false);
  const decide = useDecideCluster(study.id, question.id);
  const openDrawer = useDrawer();
  const put = (state: 'later' | 'dismissed') =>
    decide.mutate({ id: crypto.randomUUID(), state, name, responseIds, codeId: null });
  return (
    <li className="flex flex-col border-t border-rule pt-2">
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="font-serif text-[17px] font-semibold">{name}</h3>
        <button
          type="button"
          className="figures min-h-6 shrink-0 underline"
          onClick={() =>
            openDrawer({
              title: name,
              body: (
                <AnswerList
                  key={responseIds[0]}
                  study={study.id}
                  question={question.id}
                  ids={responseIds}
                />
              ),
            })
          }
        >
          {texts.answers(responseIds.length)}
        </button>
      </div>
      <ul className="my-1 flex flex-col gap-0.5 font-serif text-[16px] leading-snug">
        {typical.map(({ id, text }) => (
          <li key={id} className="break-words">
            {text}
          </li>
        ))}
      </ul>
      {edge && (
        <p className="text-soft">
          {texts.edge} <span className="break-words font-serif">{edge.text}</span>
        </p>
      )}
      {isNaming ? (
        <Adopt cluster={cluster} onDone={() => setNaming(false)} />
      ) : (
        <p className="mt-2 flex flex-wrap gap-2">
          <Button onClick={() => setNaming(true)}>{texts.adopt}</Button>
          <Button look="plain" onClick={() => put('later')}>
            {texts.later}
          </Button>
          <Button look="plain" onClick={() => put('dismissed')}>
            {texts.dismiss}
          </Button>
        </p>
      )}
      {decide.isError && <ProblemNote error={decide.error} />}
    </li>
  );
}

function Adopt({ cluster, onDone }: { cluster: FoundCluster; onDone: () => void }) {
  const { study, question } = useStudyLocation();
  const [typed, setTyped] = useState('');
  const decide = useDecideCluster(study.id, question.id);
  const name = typed.trim();
  return (
    <form
      className="mt-2 flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        decide.mutate(
          {
            id: crypto.randomUUID(),
            state: 'adopted',
            name,
            responseIds: cluster.responseIds,
            codeId: crypto.randomUUID(),
          },
          { onSuccess: () => toast(texts.made(name)) },
        );
      }}
    >
      <Field
        label={texts.nameOfCode}
        value={typed}
        maxLength={120}
        autoFocus
        hint={texts.aboutAdopting}
        onChange={({ target }) => setTyped(target.value)}
      />
      <span className="flex gap-2">
        <Button type="submit" look="main" disabled={name === '' || decide.isPending}>
          {texts.make}
        </Button>
        <Button look="plain" onClick={onDone}>
          {texts.cancel}
        </Button>
      </span>
      {decide.isError && <ProblemNote error={decide.error} />}
    </form>
  );
}

/** What was decided about: to be checked, to be looked at later, or no theme. */
function Decided({ decided }: { decided: AnswerClusters['decided'] }) {
  const { study, question } = useStudyLocation();
  const bringBack = useBringClusterBack(study.id, question.id);
  if (decided.length === 0) return null;
  return (
    <section aria-label={texts.decided} className="mt-6">
      <h3 className="font-semibold">{texts.decided}</h3>
      <ul className="mt-1 max-w-[800px]">
        {decided.map(({ id, name, state, answers }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-t border-rule py-1">
            <span className="min-w-0 flex-1 break-words font-serif text-[16px]">{name}</span>
            <span className="text-soft">{texts.states[state]}</span>
            <span className="figures">{texts.answers(answers)}</span>
            <Link
              className="underline"
              to={`${stopPath(study.id, 'code', question.id)}?cluster=${id}`}
            >
              {texts.check}
            </Link>
            <Button
              look="plain"
              className="!py-0.5"
              aria-label={texts.bringBackName(name)}
              onClick={() => bringBack.mutate(id)}
            >
              {texts.bringBack}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
