import type { Question, SampleCreate, StudyDetail } from '@yellow-thread/contract';
import { marginOf, sampleSizeFor } from '@yellow-thread/core/sampling';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { restrictTo } from '../data/groups.js';
import { useRestriction } from '../data/restriction.js';
import { useDrawSample, useSaturation } from '../data/sampling.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount, counted } from '../parts/numbers.js';
import { SaturationChart } from './saturationChart.js';

const kinds: [SampleCreate['kind'], string, string][] = [
  [
    'random',
    'at random',
    'Every answer has the same chance. Only such a sample may carry estimates.',
  ],
  [
    'stratified',
    'at random within groups',
    'Every category of a background variable has its share.',
  ],
  [
    'most_telling',
    'most telling',
    'What the model is least sure of, unlike each other. It teaches most and may carry no estimates.',
  ],
];
const margins = [0.1, 0.07, 0.05, 0.03];

/** Draws a sample to code by hand; from the whole question, or it could carry no estimates. */
export function SampleDrawer({ study, question }: { study: StudyDetail; question: Question }) {
  const within = useRestriction(study.id);
  const openDrawer = useDrawer();
  if (within === null) return <DrawSample study={study} question={question} />;
  return (
    <>
      <p>
        Samples are drawn from everybody who answered, so that they can carry estimates. You are
        looking at a group only.
      </p>
      <Button
        className="mt-3"
        onClick={() => {
          restrictTo(study.id, null);
          // what the drawer stands on was counted for the group
          openDrawer(null);
        }}
      >
        Look at everybody
      </Button>
    </>
  );
}

function DrawSample({ study, question }: { study: StudyDetail; question: Question }) {
  const [kind, setKind] = useState<SampleCreate['kind']>('random');
  const tenth = Math.max(1, Math.round(question.answered / 10));
  const [size, setSize] = useState(tenth);
  const categories = study.variables.filter((one) => one.kind !== 'number' || one.derived);
  const [variable, setVariable] = useState(categories[0]?.id ?? 0);
  const draw = useDrawSample(study.id, question.id);
  const saturation = useSaturation(study.id, question.id);
  const openDrawer = useDrawer();
  const [, setSearch] = useSearchParams();
  const drawn = question.sample;
  const margin = size > 0 ? marginOf(Math.min(size, question.answered), question.answered) : null;
  return (
    <div className="flex flex-col gap-5">
      {drawn && (
        <p>
          <span className="figures">
            {asCount(drawn.settled)} of {asCount(drawn.size)}
          </span>{' '}
          answers drawn so far are settled, {counted(drawn.random, 'of them', 'of them')} drawn at
          random. What is drawn now comes on top.
        </p>
      )}
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 font-medium">How they are drawn</legend>
        {kinds
          .filter(([one]) => one !== 'most_telling' || question.suggestions)
          .filter(([one]) => one !== 'stratified' || categories.length > 0)
          .map(([one, name, said]) => (
            <label key={one} className="flex items-baseline gap-2">
              <input
                type="radio"
                name="kind"
                checked={kind === one}
                onChange={() => setKind(one)}
              />
              <span>
                {name} <span className="block text-[13px] text-soft">{said}</span>
              </span>
            </label>
          ))}
      </fieldset>
      {kind === 'stratified' && (
        <Choice
          label="groups by"
          value={variable}
          onChange={(event) => setVariable(Number(event.target.value))}
        >
          {categories.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Choice>
      )}
      <div className="flex items-end gap-3">
        <Field
          label="How many"
          type="number"
          min={1}
          max={question.answered}
          value={size}
          onChange={(event) => setSize(Number(event.target.value))}
          className="w-28"
        />
        <span className="pb-1.5 text-soft">
          {Math.round((100 * size) / Math.max(1, question.answered))} % of{' '}
          {asCount(question.answered)}
        </span>
      </div>
      {kind !== 'most_telling' && (
        <div className="flex flex-col gap-1">
          {margin !== null && (
            <p className="text-soft">
              A share counted in {asCount(size)} answers is known within ±{' '}
              {(100 * margin).toFixed(1)} points (95 %, at worst).
            </p>
          )}
          <p className="flex flex-wrap gap-2">
            {margins.map((one) => (
              <Button
                key={one}
                look="plain"
                className="!px-2 !py-0.5"
                onClick={() => setSize(sampleSizeFor(question.answered, one))}
              >
                ± {Math.round(100 * one)} points: {asCount(sampleSizeFor(question.answered, one))}
              </Button>
            ))}
            <Button className="!px-2 !py-0.5" onClick={() => setSize(tenth)}>
              10 %: {asCount(tenth)}
            </Button>
          </p>
        </div>
      )}
      {draw.isError && <ProblemNote error={draw.error} />}
      <Button
        look="main"
        className="self-start"
        disabled={size < 1 || draw.isPending}
        onClick={() =>
          draw.mutate(
            { kind, size, variableId: kind === 'stratified' ? variable : null },
            {
              onSuccess: () => {
                openDrawer(null);
                setSearch({ show: 'sample' }, { replace: true });
              },
            },
          )
        }
      >
        Draw {counted(size, 'answer')} and code them
      </Button>
      {saturation.data && <SaturationChart saturation={saturation.data} />}
      <p>
        <Link
          to={`/studies/${study.id}/questions/${question.id}/second-reading`}
          className="underline"
          onClick={() => openDrawer(null)}
        >
          A second reading
        </Link>{' '}
        of what is settled shows how far the coding depends on who does it.
      </p>
    </div>
  );
}
