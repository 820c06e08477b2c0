import type { Finding, SheetCheck, SheetSettings } from '@yellow-thread/contract';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { findingsTexts } from './texts.js';

interface Deciding {
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}

/** What was found in the sheet and what will be done about it, what stops it first. */
export function Findings({ check, ...deciding }: { check: SheetCheck } & Deciding) {
  if (check.findings.length === 0) return null;
  const findings = check.findings.toSorted(
    (x, y) => Number(y.kind === 'stop') - Number(x.kind === 'stop'),
  );
  return (
    <section aria-labelledby="findings" className="rounded border border-rule bg-card px-5 py-4">
      <h2 id="findings">{findingsTexts.whatFound}</h2>
      <ul>
        {findings.map((finding) => (
          <li
            key={finding.code + finding.about}
            className="mt-2 border-t border-rule pt-2 first:border-0 first:pt-0"
          >
            <p className={finding.kind === 'stop' ? 'text-brick' : ''}>{finding.sentence}</p>
            <Rows finding={finding} />
            <Decision finding={finding} {...deciding} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const SHORT = 8;

function Rows({ finding: { count, rows } }: { finding: Finding }) {
  if (count === 0) return null;
  const rest = count - rows.length;
  const numbers = (list: number[]) => list.join(', ');
  const beyond = rest > 0 ? findingsTexts.more(rest) : '';
  const name = count === 1 ? findingsTexts.row : findingsTexts.rows;
  if (rows.length <= SHORT)
    return (
      <p className="figures text-[13px] text-soft">
        {name} {numbers(rows)}
        {beyond}
      </p>
    );
  return (
    <details className="figures text-[13px] text-soft">
      <summary>{findingsTexts.rows2(count, numbers(rows.slice(0, SHORT)))}</summary>
      {numbers(rows)}
      {beyond}
    </details>
  );
}

/** Where a finding leaves a choice, the choice. */
function Decision({ finding: { code, about }, settings, change }: { finding: Finding } & Deciding) {
  if (code === 'duplicate_id')
    return (
      <Choice
        label={findingsTexts.repeatedIds}
        className="mt-1"
        value={settings.duplicates}
        onChange={(event) =>
          change({ duplicates: event.target.value as SheetSettings['duplicates'] })
        }
      >
        <option value="stop">{findingsTexts.choose}</option>
        <option value="first">{findingsTexts.keepFirstRow}</option>
        <option value="last">{findingsTexts.keepLastRow}</option>
        {settings.as === 'respondents' && (
          <option value="suffix">{findingsTexts.keepAllNumbered}</option>
        )}
      </Choice>
    );
  if (code === 'spellings') {
    const apart = settings.keepSpellings.includes(about);
    return (
      <Button
        className="mt-1"
        onClick={() =>
          change({
            keepSpellings: apart
              ? settings.keepSpellings.filter((name) => name !== about)
              : [...settings.keepSpellings, about],
          })
        }
      >
        {apart ? findingsTexts.joinThem : findingsTexts.keepThemApart}
      </Button>
    );
  }
  if (code === 'personal_data')
    return (
      <Button
        className="mt-1"
        onClick={() =>
          change({
            columns: settings.columns.map((column) =>
              column.name === about ? { ...column, role: 'leave_out' } : column,
            ),
          })
        }
      >
        {findingsTexts.exclude}
      </Button>
    );
  return null;
}
