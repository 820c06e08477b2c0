import type { LedgerOrder, LedgerShow, WordMatch } from '@yellow-thread/contract';

import { useState } from 'react';

import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice, inputBox } from '../parts/field.js';

import type { FilterProps } from './ledgerFilter.js';
import { filterBarTexts } from './texts.js';
import { FilterConditions } from './filterConditions.js';

const shows: [LedgerShow, string][] = [
  ['all', filterBarTexts.allAnswers],
  ['unread', 'unread'],
  ['open', 'open'],
  ['settled', 'settled'],
  ['sample', filterBarTexts.sample],
  ['sample_open', filterBarTexts.openSample],
  ['suggested', filterBarTexts.suggestions],
  ['nothing_likely', filterBarTexts.noCodeLikely],
  ['disputed', filterBarTexts.whereModelDisagrees],
  ['unsure', 'unsure'],
  ['marked', filterBarTexts.markedNoted],
  ['changed', filterBarTexts.correctedSince],
  ['no_answer', filterBarTexts.noAnswer],
];
const matches: [WordMatch, string][] = [
  ['plain', filterBarTexts.written],
  ['word', filterBarTexts.wholeWords],
  ['stem', filterBarTexts.anyFormWords],
  ['wildcard', 'with * and ?'],
  ['line', filterBarTexts.allInLine],
  ['any', filterBarTexts.anyOfWords],
];
const ofSample = new Set<LedgerShow>(['sample', 'sample_open']);
const orders: [LedgerOrder, string][] = [
  ['imported', filterBarTexts.imported],
  ['random', filterBarTexts.random],
  ['longest', filterBarTexts.longestFirst],
  ['shortest', filterBarTexts.shortestFirst],
  ['similar', filterBarTexts.similarTogether],
  ['telling', filterBarTexts.mostTellingFirst],
  ['surest', filterBarTexts.surestFirst],
  ['likely', filterBarTexts.likeliestFirst],
  ['resembling', filterBarTexts.mostLikeCodeFirst],
];

/** What there is only after a training. */
const fromModels = new Set<LedgerShow | LedgerOrder>([
  'suggested',
  'nothing_likely',
  'disputed',
  'telling',
  'surest',
  'likely',
]);

/** Which answers are shown and in which order. */
export function FilterBar({ filter, onFilter }: FilterProps) {
  const { question } = useStudyLocation();
  const [open, setOpen] = useState(filter.narrowed > 0);
  return (
    <>
      <Choice
        label={filterBarTexts.show}
        hideLabel
        className="!py-1 max-w-36"
        aria-label={filterBarTexts.whichAnswers}
        value={filter.show}
        onChange={(event) => onFilter({ show: event.target.value as LedgerShow })}
      >
        {shows
          .filter(([show]) => !fromModels.has(show) || question.suggestions || filter.show === show)
          .filter(([show]) => !ofSample.has(show) || question.sample || filter.show === show)
          .filter(
            ([show]) => show !== 'changed' || question.changed > 0 || filter.show === 'changed',
          )
          .map(([show, name]) => (
            <option key={show} value={show}>
              {name}
            </option>
          ))}
      </Choice>
      <Containing key={question.id} words={filter.words} onWords={(words) => onFilter({ words })} />
      {filter.words !== '' && (
        <Choice
          label={filterBarTexts.found}
          hideLabel
          aria-label={filterBarTexts.howWordsFound}
          value={filter.match}
          onChange={(event) => onFilter({ match: event.target.value as WordMatch })}
        >
          {matches.map(([match, name]) => (
            <option key={match} value={match}>
              {name}
            </option>
          ))}
        </Choice>
      )}
      <Choice
        label={filterBarTexts.order}
        hideLabel
        className="!py-1 max-w-36"
        aria-label={filterBarTexts.order2}
        value={filter.order}
        onChange={(event) =>
          onFilter({
            order: event.target.value as LedgerOrder,
            seed: event.target.value === 'random' ? Math.floor(Math.random() * 1e6) + 1 : 1,
          })
        }
      >
        {orders
          .filter(
            ([order]) =>
              filter.order === order ||
              (order !== 'resembling' && (!fromModels.has(order) || question.suggestions)),
          )
          .map(([order, name]) => (
            <option key={order} value={order}>
              {name}
            </option>
          ))}
      </Choice>
      <Button look="bare" aria-expanded={open} onClick={() => setOpen(!open)} className="!px-2">
        {filterBarTexts.narrow}
        {filter.narrowed > 0 && ` · ${filter.narrowed}`}
      </Button>
      {(open || filter.narrowed > 0) && <FilterConditions filter={filter} onFilter={onFilter} />}
    </>
  );
}

/** Keeps what is typed by itself: the address that it is written to follows a moment later. */
function Containing({ words, onWords }: { words: string; onWords: (words: string) => void }) {
  const [typed, setTyped] = useState(words);
  return (
    <input
      aria-label={filterBarTexts.answersContaining}
      placeholder={filterBarTexts.containing}
      className={`${inputBox} w-36 !py-1`}
      value={typed}
      onChange={(event) => {
        setTyped(event.target.value);
        onWords(event.target.value);
      }}
      onKeyDown={({ key, currentTarget }) => {
        if (key !== 'Enter') return;
        const field = currentTarget
          .closest('main')
          ?.querySelector<HTMLElement>('[role=feed] [role=combobox]');
        // while the answers are fetched there is no field yet: it takes the focus that is dropped
        if (field) field.focus();
        else currentTarget.blur();
      }}
    />
  );
}
