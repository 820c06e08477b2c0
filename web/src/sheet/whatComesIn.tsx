import type { SheetCheck, SheetSettings } from '@yellow-thread/contract';
import { asCount, counted } from '../parts/numbers.js';

/** Counts of what would be written. */
export function WhatComesIn({ check, as }: { check: SheetCheck; as: SheetSettings['as'] }) {
  return (
    <div className="rounded border border-rule bg-card px-5 py-4">
      <h2>{as === 'respondents' ? 'What will be imported' : 'What the sheet holds'}</h2>
      <dl className="figures mt-2 grid grid-cols-[1fr_max-content] gap-y-1">
        <dt>respondents</dt>
        <dd className="text-right">{asCount(check.respondents)}</dd>
        <dt>background variables</dt>
        <dd className="text-right">{asCount(check.variables.length)}</dd>
        {check.codes.length > 0 && (
          <>
            <dt>existing codes</dt>
            <dd className="text-right">{asCount(check.codes.length)}</dd>
            <dt>mentions of them</dt>
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
            {counted(question.answered, 'answer')}, {asCount(question.noAnswer)} without
            {question.notAsked > 0 && `, ${asCount(question.notAsked)} not asked`}
            {question.settled > 0 && `, ${asCount(question.settled)} settled`}
          </span>
        </p>
      ))}
      {check.variables.length > 0 && (
        <details className="mt-3 border-t border-rule pt-2">
          <summary>Values of the background variables</summary>
          <dl className="mt-2 flex flex-col gap-2">
            {check.variables.map((variable) => (
              <div key={variable.name}>
                <dt className="font-medium">
                  {variable.name}{' '}
                  <span className="figures font-normal text-soft">
                    {asCount(variable.stated)} stated
                  </span>
                </dt>
                <dd className="figures text-[13px] text-soft">
                  {variable.categories
                    ? variable.categories
                        .slice(0, 12)
                        .map(({ value, count }) => `${value} ${asCount(count)}`)
                        .join(' · ')
                    : counted(variable.different, 'different value')}
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
