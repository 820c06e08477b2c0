import type { SheetSettings } from '@yellow-thread/contract';
import { Field } from '../parts/field.js';

const kinds: { as: SheetSettings['as']; name: string; what: string }[] = [
  {
    as: 'respondents',
    name: 'new respondents',
    what: 'Rows whose id the study already has are skipped.',
  },
  {
    as: 'details',
    name: 'more about respondents who are here',
    what: 'Background is added to respondents with the same id; a blank cell changes nothing.',
  },
  {
    as: 'answers',
    name: 'answers to a new question by respondents who are here',
    what: 'Answers, and background if there is some, are added to respondents with the same id. Answers that are there already stay as they are.',
  },
  {
    as: 'corrections',
    name: 'a corrected version',
    what: 'Respondents with the same id get the sheet’s background and answers; new ones are added, nobody is removed. Changed answers keep their codes and are marked for another look.',
  },
];

/** What the rows of a later sheet are. */
export function RowsAre({
  settings,
  change,
}: {
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}) {
  return (
    <div className="mt-4 flex items-start justify-between gap-6 rounded border border-rule bg-card px-4 py-3">
      <fieldset className="flex flex-col gap-1.5">
        <legend className="float-left mb-1 w-full font-medium">The rows are</legend>
        {kinds.map(({ as, name, what }) => (
          <label key={as} className="flex max-w-prose items-start gap-2">
            <input
              type="radio"
              name="rows-are"
              className="mt-1 accent-ink"
              checked={settings.as === as}
              onChange={() => change({ as, matches: [] })}
            />
            <span>
              {name}
              {settings.as === as && <span className="block text-[13px] text-soft">{what}</span>}
            </span>
          </label>
        ))}
      </fieldset>
      {settings.as === 'respondents' && (
        <Field
          label="Wave"
          hint="Tells these respondents apart; may stay blank."
          maxLength={120}
          className="w-56"
          defaultValue={settings.wave}
          onBlur={(event) => change({ wave: event.target.value.trim() })}
        />
      )}
    </div>
  );
}
