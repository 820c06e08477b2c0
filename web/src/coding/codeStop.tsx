import { useDeferredValue, useEffect } from 'react';
import { Link, useLocation, type Location } from 'react-router';
import { useToReadAgain } from '../data/agreement.js';
import { useSeenCodebook } from '../data/codebook.js';
import { useLedger } from '../data/coding.js';
import { useMay } from '../frame/access.js';
import { useAddressPart } from '../frame/address.js';
import { useKeyHelp } from '../frame/keys.js';
import { useDrawer } from '../frame/drawer.js';
import { stopPath, useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { EmptyState, ProblemNote, Waiting } from '../parts/notices.js';
import { CodesDrawer } from './codesDrawer.js';
import { FilterBar } from './filterBar.js';
import { HitsDrawer } from '../studyParts/hitsDrawer.js';
import { Ledger } from './ledger.js';
import { useLedgerFilter } from './ledgerFilter.js';
import { ledgerHelp, readingHelp } from './commands.js';
import { PinBar } from './pinBar.js';
import { ReadingBar } from './readingBar.js';
import { AssignDrawer } from '../sampling/assignDrawer.js';
import { SampleDrawer } from '../sampling/sampleDrawer.js';
import { codeStopTexts } from './texts.js';

/** The ledger: answers line by line, each line's codes in its own row. */
export function CodeStop() {
  const { study, question } = useStudyLocation();
  const [filter, setFilter] = useLedgerFilter();
  const query = useDeferredValue(filter.query);
  const ledger = useLedger(study.id, question.id, query);
  const codebook = useSeenCodebook(study.id);
  const openDrawer = useDrawer();
  const isResearch = useMay('research');
  const isReading = useAddressPart('reading')[0] === 'on';
  useKeyHelp(isReading ? readingHelp : ledgerHelp);
  const toReadAgain = useToReadAgain(study.id, question.id);
  const { data } = ledger;
  const { state, key } = useLocation() as Location<{ opens?: string } | null>;
  const opensSample = state?.opens === 'sample';
  const openSample = () =>
    openDrawer({
      title: codeStopTexts.sampleCodeHand,
      body: <SampleDrawer study={study} question={question} />,
    });
  useEffect(() => {
    if (opensSample) openSample();
    // once for each time that one is led here
  }, [key]); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <main className="work-list flex flex-col">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-2 border-b border-rule px-6 py-2 max-sm:px-3">
        <FilterBar key={question.id} filter={filter} onFilter={setFilter} />
        {isResearch && filter.words !== '' && data && data.total > 0 && (
          <Button
            look="bare"
            className="!px-2"
            onClick={() =>
              openDrawer({
                title: codeStopTexts.codeEvery(filter.words),
                body: <HitsDrawer study={study} question={question.id} query={filter.query} />,
              })
            }
          >
            {codeStopTexts.codeEveryOne}
          </Button>
        )}
        {isResearch && filter.query !== '' && data && data.total > 1 && (
          <Link
            to={`${stopPath(study.id, 'look', question.id)}?view=answers&filter=${encodeURIComponent(filter.query)}`}
            className="rounded px-2 py-1.5 font-medium hover:bg-wash"
          >
            {codeStopTexts.whatTheySay}
          </Link>
        )}
        <span className="ml-auto flex items-center gap-1">
          <span className="figures text-soft" role="status">
            {data && codeStopTexts.answerCounted(data.total)}
            {data && data.ids.length < data.total && codeStopTexts.wordings(data.ids.length)}
            {question.sample &&
              toReadAgain === 0 &&
              codeStopTexts.sampleSettled(question.sample.settled, question.sample.size)}
          </span>
          {isResearch && (
            <Button look="bare" className="!px-2" onClick={openSample}>
              {codeStopTexts.sample}
            </Button>
          )}
          {isResearch && data && data.ids.length > 0 && (
            <Button
              look="bare"
              className="!px-2"
              onClick={() =>
                openDrawer({
                  title: codeStopTexts.assignAnswers,
                  body: <AssignDrawer study={study} question={question} ids={data.ids} />,
                })
              }
            >
              {codeStopTexts.assign}
            </Button>
          )}
          {toReadAgain > 0 && (
            <Link
              to="../second-reading"
              relative="path"
              className="rounded px-2 py-1.5 font-medium hover:bg-wash"
            >
              {codeStopTexts.secondReadingCode(toReadAgain)}
            </Link>
          )}
          <Button
            look="bare"
            className="!px-2"
            onClick={() =>
              openDrawer({
                title: codeStopTexts.codebook,
                body: <CodesDrawer study={study.id} question={question.id} />,
              })
            }
          >
            {codeStopTexts.codes}
          </Button>
        </span>
      </div>
      {isReading && <ReadingBar study={study} question={question} />}
      {ledger.isError && <ProblemNote error={ledger.error} />}
      {(ledger.isPending || !codebook) && !ledger.isError && (
        <Waiting what={codeStopTexts.answers} />
      )}
      {data && codebook && data.ids.length === 0 && (
        <EmptyState title={codeStopTexts.noAnswerLike}>
          <p>{isResearch ? codeStopTexts.nothingFitsWhatChosen : codeStopTexts.nothingAssigned}</p>
        </EmptyState>
      )}
      {data && data.ids.length > 0 && codebook && (
        <>
          <Ledger
            key={`${question.id} ${query}`}
            ids={data.ids}
            counts={data.counts}
            near={data.near}
            codebook={codebook}
            filter={filter}
            isReading={isReading}
          />
          {!isReading && <PinBar study={study.id} codebook={codebook} />}
        </>
      )}
    </main>
  );
}
