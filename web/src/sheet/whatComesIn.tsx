import type { SheetCheck, SheetSettings } from '@yellow-thread/contract';
import { asCount } from '../lib/numbers.js';
import { whatComesInTexts } from './texts.js';

/** Counts of what would be written. */
export function WhatComesIn({ check, as }: { check: SheetCheck; as: SheetSettings['as'] }) {
  return (
    <div className="rounded border border-rule bg-card px-5 py-4">
      <h2>
        {as === 'respondents' ? whatComesInTexts.whatWillImported : whatComesInTexts.whatSheetHolds}
      </h2>
      <dl className="figures mt-2 grid grid-cols-[1fr_max-content] gap-y-1">
        <dt>{whatComesInTexts.respondents}</dt>
        <dd className="text-right">{asCount(check.respondents)}</dd>
        <dt>{whatComesInTexts.backgroundVariables}</dt>
        <dd className="text-right">{asCount(check.variables.length)}</dd>
        {check.codes.length > 0 && (
          <>
            <dt>{whatComesInTexts.existingCodes}</dt>
            <dd className="text-right">{asCount(check.codes.length)}</dd>
            <dt>{whatComesInTexts.mentionsThem}</dt>
            <dd className="text-right">
              {asCount(check.codes.reduce((sum, code) => sum + code.mentions, 0))}
            </dd>
          </>
        )}
      </dl>
      {check.questions.map((question) => (
        <p key={question.wording} className="mt-3 border-t border-rule pt-2">
          <span className="block font-serif text-[15px] leading-snug">{question.wording}</span>
          <span className="figures text-soft">
            {whatComesInTexts.without(question.answered, question.noAnswer)}
            {question.notAsked > 0 && whatComesInTexts.asked(question.notAsked)}
            {question.settled > 0 && whatComesInTexts.settled(question.settled)}
          </span>
        </p>
      ))}
      {check.variables.length > 0 && (
        <details className="mt-3 border-t border-rule pt-2">
          <summary>{whatComesInTexts.valuesBackgroundVariables}</summary>
          <dl className="mt-2 flex flex-col gap-2">
            {check.variables.map((variable) => (
              <div key={variable.name}>
                <dt className="font-medium">
                  {variable.name}{' '}
                  <span className="figures font-normal text-soft">
                    {whatComesInTexts.stated(variable.stated)}
                  </span>
                </dt>
                <dd className="figures text-[13px] text-soft">
                  {variable.categories
                    ? variable.categories
                        .slice(0, 12)
                        .map(({ value, count }) => `${value} ${asCount(count)}`)
                        .join(' · ')
                    : whatComesInTexts.differentValueCounted(variable.different)}
                  {(variable.categories?.length ?? 0) > 12 && ' …'}
                </dd>
              </div>
            ))}
          </dl>
        </details>
      )}
    </div>
  );
}
