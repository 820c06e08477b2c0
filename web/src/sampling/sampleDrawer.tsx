import type { Question, SampleCreate, StudyDetail } from '@yellow-thread/contract';
import { marginOf, sampleSizeFor } from '@yellow-thread/core/sampling';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAddress } from '../frame/address.js';
import { restrictTo } from '../data/groups.js';
import { useRestriction } from '../data/restriction.js';
import { useMeaning } from '../data/meaning.js';
import { useDrawSample, useSaturation } from '../data/sampling.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount } from '../lib/numbers.js';
import { SaturationChart } from './saturationChart.js';
import { sampleDrawerTexts } from './texts.js';

const kinds: [SampleCreate['kind'], string, string][] = [
  ['random', sampleDrawerTexts.random, sampleDrawerTexts.everyAnswerSameChance],
  [
    'stratified',
    sampleDrawerTexts.randomWithinGroups,
    sampleDrawerTexts.everyCategoryBackgroundVariable,
  ],
  ['most_telling', sampleDrawerTexts.mostTelling, sampleDrawerTexts.whatModelLeastSure],
  ['first_examples', sampleDrawerTexts.firstExamples, sampleDrawerTexts.whatNearestCodesWithout],
];
const isAtRandom = (kind: SampleCreate['kind']) => kind === 'random' || kind === 'stratified';
const margins = [0.1, 0.07, 0.05, 0.03];

/** Draws a sample to code by hand; from the whole question, or it could carry no estimates. */
export function SampleDrawer({ study, question }: { study: StudyDetail; question: Question }) {
  const within = useRestriction(study.id);
  const openDrawer = useDrawer();
  if (within === null) return <DrawSample study={study} question={question} />;
  return (
    <>
      <p>{sampleDrawerTexts.samplesDrawnEverybodyWho}</p>
      <Button
        className="mt-3"
        onClick={() => {
          restrictTo(study.id, null);
          // what the drawer stands on was counted for the group
          openDrawer(null);
        }}
      >
        {sampleDrawerTexts.lookEverybody}
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
  const meaning = useMeaning(study.id);
  const saturation = useSaturation(study.id, question.id);
  const openDrawer = useDrawer();
  const [, changeAddress] = useAddress();
  const drawn = question.sample;
  const margin = size > 0 ? marginOf(Math.min(size, question.answered), question.answered) : null;
  return (
    <div className="flex flex-col gap-5">
      {drawn && (
        <p>
          <span className="figures">{sampleDrawerTexts.of(drawn.settled, drawn.size)}</span>{' '}
          {sampleDrawerTexts.answersDrawnFarSettled(drawn.random)}
        </p>
      )}
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 font-medium">{sampleDrawerTexts.howDrawn}</legend>
        {kinds
          .filter(([one]) => one !== 'most_telling' || question.suggestions)
          .filter(([one]) => one !== 'stratified' || categories.length > 0)
          .filter(([one]) => one !== 'first_examples' || meaning.data?.job)
          .map(([one, name, said]) => (
            <label key={one} className="flex items-baseline gap-2">
              <input
                type="radio"
                name={sampleDrawerTexts.kind}
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
          label={sampleDrawerTexts.groups}
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
          label={sampleDrawerTexts.howMany}
          type="number"
          min={1}
          max={question.answered}
          value={size}
          onChange={(event) => setSize(Number(event.target.value))}
          className="w-28"
        />
        <span className="pb-1.5 text-soft">
          {sampleDrawerTexts.of2(
            Math.round((100 * size) / Math.max(1, question.answered)),
            question.answered,
          )}
        </span>
      </div>
      {isAtRandom(kind) && (
        <div className="flex flex-col gap-1">
          {margin !== null && (
            <p className="text-soft">
              {sampleDrawerTexts.shareCountedAnswersKnown(size, (100 * margin).toFixed(1))}
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
                {sampleDrawerTexts.points(
                  Math.round(100 * one),
                  sampleSizeFor(question.answered, one),
                )}
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
                changeAddress(() => new URLSearchParams({ show: 'sample' }));
              },
            },
          )
        }
      >
        {sampleDrawerTexts.drawCodeThem(size)}
      </Button>
      {saturation.data && <SaturationChart saturation={saturation.data} />}
      <p>
        <Link
          to={`/studies/${study.id}/questions/${question.id}/second-reading`}
          className="underline"
          onClick={() => openDrawer(null)}
        >
          {sampleDrawerTexts.secondReading}
        </Link>{' '}
        {sampleDrawerTexts.whatSettledShowsHow}
      </p>
    </div>
  );
}
