import { useDeferredValue, useEffect } from 'react';
import { Link, useLocation, useSearchParams, type Location } from 'react-router';
import { useToReadAgain } from '../data/agreement.js';
import { useSeenCodebook } from '../data/codebook.js';
import { useLedger } from '../data/coding.js';
import { useKeyHelp } from '../frame/keys.js';
import { useDrawer } from '../frame/drawer.js';
import { usePlace } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { EmptyState, ProblemNote, Waiting } from '../parts/notices.js';
import { asCount, counted } from '../parts/numbers.js';
import { CodesDrawer } from './codesDrawer.js';
import { FilterBar } from './filterBar.js';
import { HitsDrawer } from './hitsDrawer.js';
import { Ledger } from './ledger.js';
import { useLedgerFilter } from './ledgerFilter.js';
import { ledgerKeys, readingKeys } from './ledgerKeys.js';
import { PinBar } from './pinBar.js';
import { ReadingBar } from './readingBar.js';
import { SampleDrawer } from './sampleDrawer.js';

/** The ledger: answers line by line, each line's codes in its own row. */
export function CodeStop() {
  const { study, question } = usePlace();
  const [filter, setFilter] = useLedgerFilter();
  const query = useDeferredValue(filter.query);
  const ledger = useLedger(study.id, question.id, query);
  const codebook = useSeenCodebook(study.id);
  const openDrawer = useDrawer();
  const isReading = useSearchParams()[0].get('reading') === 'on';
  useKeyHelp(isReading ? readingKeys : ledgerKeys);
  const toReadAgain = useToReadAgain(study.id, question.id);
  const { data } = ledger;
  const { state, key } = useLocation() as Location<{ opens?: string } | null>;
  const opensSample = state?.opens === 'sample';
  const openSample = () =>
    openDrawer({
      title: 'A sample to code by hand',
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
        {filter.words !== '' && data && data.total > 0 && (
          <Button
            look="bare"
            className="!px-2"
            onClick={() =>
              openDrawer({
                title: `Code every “${filter.words}”`,
                body: <HitsDrawer study={study} question={question.id} query={filter.query} />,
              })
            }
          >
            Code every one …
          </Button>
        )}
        <span className="ml-auto flex items-center gap-1">
          <span className="figures text-soft" role="status">
            {data && counted(data.total, 'answer')}
            {data && data.ids.length < data.total && ` in ${asCount(data.ids.length)} wordings`}
            {question.sample &&
              toReadAgain === 0 &&
              ` · sample: ${asCount(question.sample.settled)} of ${asCount(question.sample.size)} settled`}
          </span>
          <Button look="bare" className="!px-2" onClick={openSample}>
            Sample …
          </Button>
          {toReadAgain > 0 && (
            <Link
              to="../second-reading"
              relative="path"
              className="rounded px-2 py-1.5 font-medium hover:bg-wash"
            >
              Second reading: {asCount(toReadAgain)} to code
            </Link>
          )}
          <Button
            look="bare"
            className="!px-2"
            onClick={() =>
              openDrawer({
                title: 'Codebook',
                body: <CodesDrawer study={study.id} question={question.id} />,
              })
            }
          >
            Codes
          </Button>
        </span>
      </div>
      {isReading && <ReadingBar study={study} question={question} />}
      {ledger.isError && <ProblemNote error={ledger.error} />}
      {(ledger.isPending || !codebook) && !ledger.isError && <Waiting what="the answers" />}
      {data && codebook && data.ids.length === 0 && (
        <EmptyState title="No answer is like that">
          <p>Nothing fits what is chosen above. Show all answers, or look for other words.</p>
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
