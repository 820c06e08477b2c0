import type { SheetDifference, SheetSettings } from '@yellow-thread/contract';
import { Button } from '../parts/button.js';
import { asCount } from '../lib/numbers.js';
import { differenceTexts } from './texts.js';

/** What a sheet of details or corrections would change, and whom it could not find. */
export function Difference({
  study,
  sheet,
  difference,
  settings,
  change,
}: {
  study: number;
  sheet: number;
  difference: SheetDifference;
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}) {
  const { as, matches } = settings;
  const csv = (side: string) => `/api/studies/${study}/sheets/${sheet}/unmatched.csv?side=${side}`;
  return (
    <section aria-labelledby="difference" className="rounded border border-rule bg-card px-5 py-4">
      <h2 id="difference">{differenceTexts.whatWouldChange}</h2>
      <dl className="figures mt-2 grid grid-cols-[1fr_max-content] gap-y-1">
        <dt>{differenceTexts.respondentsFoundId}</dt>
        <dd className="text-right">{asCount(difference.found)}</dd>
        <dt>{differenceTexts.themOtherBackground}</dt>
        <dd className="text-right">{asCount(difference.changedPeople)}</dd>
        {as !== 'details' && (
          <>
            <dt>{differenceTexts.answersNew}</dt>
            <dd className="text-right">{asCount(difference.newAnswers)}</dd>
          </>
        )}
        {as === 'corrections' && (
          <>
            <dt>{differenceTexts.answersAnotherText}</dt>
            <dd className="text-right">{asCount(difference.changedTexts)}</dd>
            <dt>{differenceTexts.themCodedSettled}</dt>
            <dd className="text-right">{asCount(difference.changedCoded)}</dd>
          </>
        )}
        <dt>{as === 'corrections' ? differenceTexts.newRespondents : differenceTexts.idsStudy}</dt>
        <dd className="text-right">{asCount(difference.unknown)}</dd>
        <dt>{differenceTexts.respondentsSheet}</dt>
        <dd className="text-right">{asCount(difference.absent)}</dd>
      </dl>
      {(difference.proposals.length > 0 || matches.length > 0) && (
        <div className="mt-3 border-t border-rule pt-2">
          <p>{differenceTexts.writtenDifferentlyNothingMatched}</p>
          <ul className="mt-1">
            {matches.map((match) => (
              <li key={match.from} className="flex items-center justify-between gap-2 py-0.5">
                <span>{differenceTexts.is(match.from, match.to)}</span>
                <Button
                  className="px-2 py-0.5"
                  onClick={() => change({ matches: matches.filter((one) => one !== match) })}
                >
                  {differenceTexts.undo}
                </Button>
              </li>
            ))}
            {difference.proposals
              .filter(({ from }) => !matches.some((match) => match.from === from))
              .map(({ from, to, why }) => (
                <li key={from} className="flex items-center justify-between gap-2 py-0.5">
                  <span>
                    {from} → {to} <span className="text-[13px] text-soft">{why}</span>
                  </span>
                  <Button
                    className="px-2 py-0.5"
                    aria-label={differenceTexts.is2(from, to)}
                    onClick={() => change({ matches: [...matches, { from, to }] })}
                  >
                    {differenceTexts.itIs}
                  </Button>
                </li>
              ))}
          </ul>
          {difference.proposals.length > 1 && (
            <Button
              className="mt-1"
              onClick={() =>
                change({
                  matches: [
                    ...matches,
                    ...difference.proposals.map(({ from, to }) => ({ from, to })),
                  ],
                })
              }
            >
              {differenceTexts.all(difference.proposals.length)}
            </Button>
          )}
        </div>
      )}
      <Ids
        title={differenceTexts.onlySheet}
        ids={difference.firstUnknown}
        count={difference.unknown}
        href={csv('sheet')}
      />
      <Ids
        title={differenceTexts.onlyStudy}
        ids={difference.firstAbsent}
        count={difference.absent}
        href={csv('study')}
      />
      {difference.changes.length > 0 && (
        <details className="mt-3 border-t border-rule pt-2" open>
          <summary>
            {difference.changes.length === 1
              ? differenceTexts.change
              : differenceTexts.firstChanges(difference.changes.length)}
          </summary>
          <ul>
            {difference.changes.map((one, i) => (
              <li key={i} className="mt-2">
                <span className="text-[13px] text-soft">
                  {one.externalId}, {one.about}
                </span>
                {one.before !== '' && (
                  <del className="block font-serif text-soft [overflow-wrap:anywhere]">
                    {one.before}
                  </del>
                )}
                <ins className="block font-serif no-underline [overflow-wrap:anywhere]">
                  {one.after === '' ? differenceTexts.blank : one.after}
                </ins>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function Ids({
  title,
  ids,
  count,
  href,
}: {
  title: string;
  ids: string[];
  count: number;
  href: string;
}) {
  if (count === 0) return null;
  return (
    <details className="mt-3 border-t border-rule pt-2">
      <summary>
        {title}: {asCount(count)}
      </summary>
      <p className="figures text-[13px] text-soft [overflow-wrap:anywhere]">
        {ids.join(', ')}
        {count > ids.length && ' …'}
      </p>
      <a href={href} className="underline">
        {differenceTexts.allThemCsv}
      </a>
    </details>
  );
}
