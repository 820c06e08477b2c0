import type { FileSettings } from '@yellow-thread/contract';
import { useReadAgain } from '../data/sheets.js';
import { Choice } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { encodingNames, fileReadingTexts } from './texts.js';

const formats = {
  text: fileReadingTexts.separatedText,
  xlsx: fileReadingTexts.xlsx,
  ods: fileReadingTexts.ods,
  json_lines: fileReadingTexts.jsonLines,
};
const separators = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };

/** How the file was read, and what can be changed about that; a change reads it again. */
export function FileReading({
  study,
  sheet,
  file,
}: {
  study: number;
  sheet: number;
  file: FileSettings;
}) {
  const readAgain = useReadAgain(study, sheet);
  const isText = file.format === 'text';
  const read = (part: Partial<FileSettings>) =>
    readAgain.mutate({
      headRow: file.headRow,
      headRows: file.headRows,
      ...(isText && { separator: file.separator, encoding: file.encoding }),
      ...(file.worksheet && { worksheet: file.worksheet }),
      ...part,
    });
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
      <span className="text-soft">{fileReadingTexts.read(formats[file.format])}</span>
      {file.worksheets.length > 1 && (
        <Choice
          label={fileReadingTexts.worksheet}
          value={file.worksheet}
          // another worksheet has another head
          onChange={(event) => readAgain.mutate({ worksheet: event.target.value })}
        >
          {file.worksheets.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </Choice>
      )}
      {isText && (
        <>
          <Choice
            label={fileReadingTexts.encoding}
            value={file.encoding}
            onChange={(event) => read({ encoding: event.target.value as FileSettings['encoding'] })}
          >
            {Object.entries(encodingNames).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
          <Choice
            label={fileReadingTexts.separated}
            value={file.separator}
            onChange={(event) =>
              read({ separator: event.target.value as FileSettings['separator'] })
            }
          >
            {Object.entries(separators).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
        </>
      )}
      {file.format !== 'json_lines' && (
        <>
          <label className="inline-flex items-center gap-2">
            <span className="text-soft">{fileReadingTexts.headerRow}</span>
            <input
              key={file.headRow}
              type="number"
              min={1}
              max={1000}
              defaultValue={file.headRow}
              className="figures w-16 rounded border border-rule bg-card px-2 py-1.5"
              onBlur={(event) => {
                const headRow = Number(event.target.value);
                if (headRow >= 1 && headRow !== file.headRow) read({ headRow });
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') event.currentTarget.blur();
              }}
            />
          </label>
          <Choice
            label={fileReadingTexts.of}
            value={file.headRows}
            onChange={(event) => read({ headRows: Number(event.target.value) === 2 ? 2 : 1 })}
          >
            <option value={1}>{fileReadingTexts.oneRow}</option>
            <option value={2}>{fileReadingTexts.twoRowsCodeWording}</option>
          </Choice>
        </>
      )}
      {file.readings && file.readings.length > 1 && (
        <fieldset className="basis-full" disabled={readAgain.isPending}>
          <legend className="text-soft">{fileReadingTexts.whichLettersRight}</legend>
          {file.readings.map(({ encoding, words }) => (
            <label key={encoding} className="flex items-baseline gap-2 py-1">
              <input
                type="radio"
                name="encoding"
                checked={encoding === file.encoding}
                onChange={() => read({ encoding })}
              />
              <span>
                <span className="voice">{words.join(' · ')}</span>{' '}
                <span className="text-soft">{encodingNames[encoding]}</span>
              </span>
            </label>
          ))}
        </fieldset>
      )}
      {readAgain.error && <ProblemNote error={readAgain.error} />}
    </div>
  );
}
