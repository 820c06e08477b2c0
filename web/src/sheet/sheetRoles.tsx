import type { ColumnRole, Finding, Sheet, SheetCheck } from '@yellow-thread/contract';
import { useState } from 'react';
import { useImportSheet, useJob, useSheetCheck } from '../data/sheets.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount, counted } from '../parts/numbers.js';

const roleNames: Record<ColumnRole, string> = {
  id: 'respondent id',
  question: 'open question',
  category: 'background: category',
  number: 'background: number',
  date: 'background: date',
  yes_no: 'background: yes or no',
  weight: 'weight',
  leave_out: 'leave out',
};

/** What each column is for, what that will bring in, and the button that does it. */
export function SheetRoles({
  study,
  sheet,
  onLeave,
}: {
  study: number;
  sheet: Sheet;
  onLeave: () => void;
}) {
  const [roles, setRoles] = useState(() => sheet.columns.map((column) => column.role));
  const check = useSheetCheck(study, sheet.id, roles);
  const bringIn = useImportSheet(study, sheet.id);
  const { job, underWay, cancel } = useJob(study, bringIn.data?.id ?? null);
  const stops = check.data?.findings.some((finding) => finding.kind === 'stop') ?? true;
  if (job?.state === 'done') return <BroughtInNow sheet={sheet} onLeave={onLeave} />;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_320px] items-start gap-8">
      <section aria-labelledby="columns" className="min-w-0">
        <h2 id="columns">
          {sheet.fileName}: {counted(sheet.columns.length, 'column')}, {counted(sheet.rows, 'row')}
        </h2>
        <p className="text-soft">What is each column for? The guesses can be changed.</p>
        <table className="mt-3 w-full table-fixed">
          <thead className="border-b border-rule text-left text-soft">
            <tr>
              <th className="w-[32%] py-1.5 pr-4 font-normal">Column</th>
              <th className="w-[210px] py-1.5 pr-4 font-normal">Is</th>
              <th className="py-1.5 font-normal">First values</th>
            </tr>
          </thead>
          <tbody>
            {sheet.columns.map((column, c) => (
              <tr key={column.name} className="border-b border-rule align-top">
                <th scope="row" className="py-2 pr-4 text-left font-medium">
                  {column.name}
                </th>
                <td className="py-2 pr-4">
                  <Choice
                    label={`What ${column.name} is`}
                    hideLabel
                    value={roles[c]}
                    onChange={(event) => setRoles(roles.with(c, event.target.value as ColumnRole))}
                  >
                    {Object.entries(roleNames).map(([role, name]) => (
                      <option key={role} value={role}>
                        {name}
                      </option>
                    ))}
                  </Choice>
                  {roles[c] === column.role && (
                    <p className="mt-0.5 text-[13px] text-soft">{column.reason}</p>
                  )}
                </td>
                <td className="py-2">
                  <FirstValues
                    values={sheet.preview.map((cells) => cells[c] ?? '')}
                    asText={roles[c] === 'question'}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <aside aria-label="What will come in" className="sticky top-0 flex flex-col gap-4">
        {check.error && <ProblemNote error={check.error} />}
        {check.data && <WhatComesIn check={check.data} />}
        {bringIn.error && <ProblemNote error={bringIn.error} />}
        {job?.problem && (
          <p role="alert" className="text-brick">
            {job.problem.sentence}
          </p>
        )}
        <div className="flex gap-3">
          <Button
            look="main"
            disabled={stops || check.isFetching || underWay || bringIn.isPending}
            onClick={() => bringIn.mutate(roles)}
          >
            {underWay ? 'Bringing in …' : 'Bring in'}
          </Button>
          {underWay ? (
            <Button onClick={() => cancel.mutate()}>Cancel</Button>
          ) : (
            <Button onClick={onLeave}>Leave it</Button>
          )}
        </div>
      </aside>
    </div>
  );
}

function FirstValues({ values, asText }: { values: string[]; asText: boolean }) {
  const filled = values.filter((value) => value.trim() !== '').slice(0, asText ? 2 : 4);
  if (asText)
    return (
      <ul>
        {filled.map((value, i) => (
          <li key={i} className="line-clamp-2 font-serif text-[15px] leading-snug" title={value}>
            {value}
          </li>
        ))}
      </ul>
    );
  return <span className="block truncate text-soft">{filled.join(' · ')}</span>;
}

function WhatComesIn({ check }: { check: SheetCheck }) {
  return (
    <div className="rounded border border-rule bg-card px-5 py-4">
      <h2>What will come in</h2>
      <dl className="figures mt-2 grid grid-cols-[1fr_max-content] gap-y-1">
        <dt>respondents</dt>
        <dd className="text-right">{asCount(check.respondents)}</dd>
        <dt>background variables</dt>
        <dd className="text-right">{asCount(check.variables.length)}</dd>
      </dl>
      {check.questions.map((question) => (
        <p key={question.wording} className="mt-3 border-t border-rule pt-2">
          <span className="block font-serif text-[15px] leading-snug">{question.wording}</span>
          <span className="figures text-soft">
            {counted(question.answered, 'answer')}, {asCount(question.noAnswer)} without
          </span>
        </p>
      ))}
      {check.findings.map((finding) => (
        <FindingNote key={finding.code + finding.sentence} finding={finding} />
      ))}
    </div>
  );
}

function FindingNote({ finding }: { finding: Finding }) {
  const rest = finding.count - finding.rows.length;
  return (
    <p className={`mt-3 border-t border-rule pt-2 ${finding.kind === 'stop' ? 'text-brick' : ''}`}>
      {finding.sentence}
      {finding.count > 0 && (
        <span className="figures block text-[13px] text-soft">
          {finding.count === 1 ? 'Row' : 'Rows'} {finding.rows.join(', ')}
          {rest > 0 ? ` and ${asCount(rest)} more` : ''}
        </span>
      )}
    </p>
  );
}

function BroughtInNow({ sheet, onLeave }: { sheet: Sheet; onLeave: () => void }) {
  return (
    <div className="flex max-w-prose flex-col items-start gap-4">
      <h2 role="status">
        {sheet.fileName} is in: {counted(sheet.rows, 'respondent')}.
      </h2>
      <p>Have a first look at the words people use, or begin to code.</p>
      <Button look="main" onClick={onLeave} autoFocus>
        See what came in
      </Button>
    </div>
  );
}
