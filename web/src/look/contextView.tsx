import type { Hits } from '@yellow-thread/contract';
import { useMemo, useState } from 'react';
import { useHits } from '../data/hits.js';
import { useAddressChoice, useAddressPart } from '../frame/address.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { AnswerList } from './answerList.js';
import { contextViewTexts } from './texts.js';
import { useHitsOf } from './useHitsOf.js';

const orders = ['right', 'left', 'came'] as const;
/** Rows that are drawn: more cannot be read one by one. */
const MOST = 500;

/** Each place of a word or phrase with what stands around it, one below the other. */
export function ContextView() {
  const { study, question } = useStudyLocation();
  const [words, find] = useAddressPart('words');
  const [order, setOrder] = useAddressChoice('order', orders);
  const [typed, setTyped] = useState(words ?? '');
  const openHits = useHitsOf();
  const query = new URLSearchParams({ words: words ?? '', match: 'stem' }).toString();
  return (
    <div className="flex flex-col gap-5 px-6 py-5 max-sm:px-4">
      <form
        className="flex flex-wrap items-end gap-x-4 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          find(typed.trim());
        }}
      >
        <Field
          label={contextViewTexts.words}
          value={typed}
          maxLength={200}
          onChange={({ target }) => setTyped(target.value)}
        />
        <Button type="submit">{contextViewTexts.find}</Button>
        <Choice
          label={contextViewTexts.sortedBy}
          value={order}
          onChange={({ target }) => setOrder(target.value as (typeof orders)[number])}
        >
          {orders.map((one) => (
            <option key={one} value={one}>
              {contextViewTexts[one]}
            </option>
          ))}
        </Choice>
        {words && (
          <Button look="plain" onClick={() => openHits({ title: words, words, match: 'stem' })}>
            {contextViewTexts.code}
          </Button>
        )}
      </form>
      {words ? (
        <Places key={query} study={study.id} question={question.id} query={query} order={order} />
      ) : (
        <EmptyState title={contextViewTexts.begin}>
          <p>{contextViewTexts.beginWhy}</p>
        </EmptyState>
      )}
    </div>
  );
}

function Places({
  study,
  question,
  query,
  order,
}: {
  study: number;
  question: number;
  query: string;
  order: (typeof orders)[number];
}) {
  const hits = useHits(study, question, query);
  const openDrawer = useDrawer();
  const rows = useMemo(() => sorted(placesIn(hits.data?.answers ?? []), order), [hits.data, order]);
  if (hits.isError) return <PageProblem error={hits.error} />;
  if (!hits.data) return <Waiting what={contextViewTexts.places} />;
  const { found } = hits.data;
  if (found.hits === 0)
    return (
      <EmptyState title={contextViewTexts.nothing}>
        <p>{contextViewTexts.nothingWhy}</p>
      </EmptyState>
    );
  const shown = rows.slice(0, MOST);
  return (
    <section aria-label={contextViewTexts.places}>
      <p className="figures text-soft">
        {contextViewTexts.found(found.hits, found.answers)}
        {shown.length < found.hits && contextViewTexts.first(shown.length)}
      </p>
      <div className="overflow-x-auto">
        <table className="mt-2 w-full table-fixed font-serif text-[16px]">
          <colgroup>
            <col className="w-[44%]" />
            <col className="w-[12%]" />
            <col className="w-[44%]" />
          </colgroup>
          <thead className="sr-only">
            <tr>
              <th>{contextViewTexts.before}</th>
              <th>{contextViewTexts.place}</th>
              <th>{contextViewTexts.after}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ key, id, before, place, after, externalId }) => (
              <tr key={key} className="border-b border-rule">
                <td className="py-1 pr-2">
                  {/* what stands next to the word is its end: the beginning is cut */}
                  <span className="flex justify-end overflow-hidden whitespace-nowrap">
                    {before}
                  </span>
                </td>
                <td className="bg-wash py-1 text-center">
                  <button
                    type="button"
                    className="max-w-full break-words font-semibold hover:underline"
                    title={contextViewTexts.open(externalId)}
                    onClick={() =>
                      openDrawer({
                        title: contextViewTexts.open(externalId),
                        body: <AnswerList key={id} study={study} question={question} ids={[id]} />,
                      })
                    }
                  >
                    {place}
                  </button>
                </td>
                <td className="overflow-hidden text-ellipsis whitespace-nowrap py-1 pl-2">
                  {after}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

interface Place {
  key: string;
  id: number;
  externalId: string;
  before: string;
  place: string;
  after: string;
}

const flat = (text: string) => text.replaceAll(/\s+/gu, ' ');

const placesIn = (answers: Hits['answers']): Place[] =>
  answers.flatMap(({ id, externalId, text, hits }) =>
    hits.map(({ start, end }) => ({
      key: `${id} ${start}`,
      id,
      externalId,
      before: flat(text.slice(0, start)).trimStart(),
      place: flat(text.slice(start, end)),
      after: flat(text.slice(end)).trimEnd(),
    })),
  );

/** What stands alone comes last. */
const compared = (one: string, other: string): number =>
  Number(one === '') - Number(other === '') || collator.compare(one, other);
const collator = new Intl.Collator(undefined, { ignorePunctuation: true, sensitivity: 'base' });
/** What stands before, from the word outwards. */
const backwards = (text: string) => text.trim().split(' ').toReversed().join(' ');

function sorted(places: Place[], order: (typeof orders)[number]): Place[] {
  switch (order) {
    case 'right':
      return places.toSorted((x, y) => compared(x.after, y.after));
    case 'left':
      return places.toSorted((x, y) => compared(backwards(x.before), backwards(y.before)));
    case 'came':
      return places;
  }
}
