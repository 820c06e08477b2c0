import type { ListedReading } from '@yellow-thread/contract';
import { listNames, isOwnReading } from '@yellow-thread/core/agreement';
import { Link, useParams } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useReadings, useRemoveReading } from '../data/agreement.js';
import { useSession } from '../data/people.js';
import { useMay } from '../frame/access.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { Compared } from './compared.js';
import { DrawReading } from './drawReading.js';
import { ReadAgain } from './readAgain.js';
import { secondReadingsTexts } from './texts.js';

/** Second readings of a question: drawing one, doing one's own, and seeing how far it agrees with the first. */
export function SecondReadings() {
  const { study, question } = useStudyLocation();
  const { reading: chosen } = useParams();
  const readings = useReadings(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  const me = useSession().data?.account?.id;
  const mayCompare = useMay('research');
  if (readings.isError) return <PageProblem error={readings.error} />;
  if (!readings.data || !codebook) return <Waiting what={secondReadingsTexts.secondReadings} />;
  const reading = readings.data.readings.find(({ id }) => id === chosen);
  if (!reading) return <AllReadings readings={readings.data.readings} me={me} />;
  if (reading.read === reading.size && !mayCompare) return <AllCoded size={reading.size} />;
  if (reading.read === reading.size)
    return <Compared key={reading.id} reading={reading} codebook={codebook} />;
  if (reading.readerId === me)
    return <ReadAgain key={reading.id} reading={reading} codebook={codebook} />;
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <h1>{secondReadingsTexts.stillCoding(reading.reader)}</h1>
      <p className="my-2 max-w-prose">
        {secondReadingsTexts.answersCodedHowFar(reading.read, reading.size)}
      </p>
      <Link to=".." relative="path" className="underline">
        {secondReadingsTexts.allSecondReadings}
      </Link>
    </main>
  );
}

/** What a coder finds who has coded all of theirs: others look at how far it agrees. */
function AllCoded({ size }: { size: number }) {
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <h1>{secondReadingsTexts.allCoded}</h1>
      <p className="my-2 max-w-prose">{secondReadingsTexts.othersCompare(size)}</p>
      <Link to=".." relative="path" className="underline">
        {secondReadingsTexts.allSecondReadings}
      </Link>
    </main>
  );
}

function AllReadings({ readings, me }: { readings: ListedReading[]; me: number | undefined }) {
  const { study, question } = useStudyLocation();
  const remove = useRemoveReading(study.id, question.id);
  const mayLead = useMay('research');
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-4 max-w-4xl">
        <h1>{secondReadingsTexts.secondReadings2}</h1>
        <p className="mt-1 max-w-prose text-soft">{secondReadingsTexts.someSettledAnswersDrawn}</p>
      </header>
      {readings.length > 0 && (
        <ul className="mb-8 max-w-5xl border-t border-rule">
          {readings.map((one) => (
            <li
              key={one.id}
              className="flex min-h-12 flex-wrap items-center gap-x-4 border-b border-rule py-1.5"
            >
              <span>
                <span className="font-medium">{one.reader}</span>{' '}
                {isOwnReading(one)
                  ? secondReadingsTexts.onceMore
                  : `after ${listNames(one.firstCoders)}`}
              </span>
              <span className="figures text-soft">
                {secondReadingsTexts.codedDrawnSettled(
                  one.read,
                  one.size,
                  one.drawnFrom,
                  one.drawnAt,
                )}
              </span>
              <span className="ml-auto flex items-center gap-2">
                {(mayLead || one.read < one.size) && (
                  <Link
                    to={one.id}
                    className={
                      one.read < one.size && one.readerId === me
                        ? 'rounded border border-ink bg-ink px-3 py-1.5 font-medium text-paper'
                        : 'rounded px-3 py-1.5 font-medium underline'
                    }
                  >
                    {one.read === one.size
                      ? secondReadingsTexts.seeHowFarAgree
                      : one.readerId === me
                        ? secondReadingsTexts.codeLeft(one.size, one.read)
                        : secondReadingsTexts.underWay}
                  </Link>
                )}
                {mayLead && (
                  <Button
                    look="bare"
                    aria-label={secondReadingsTexts.takeReadingAway(one.reader)}
                    onClick={() => remove.mutate(one.id)}
                  >
                    {secondReadingsTexts.takeAway}
                  </Button>
                )}
              </span>
            </li>
          ))}
        </ul>
      )}
      {mayLead && <DrawReading readings={readings} />}
      {!mayLead && readings.length === 0 && <p>{secondReadingsTexts.noneForYou}</p>}
    </main>
  );
}
