import type { CodebookFormat, CodeList } from '@yellow-thread/contract';
import { useRef } from 'react';
import { useReadCodeList, useTakeCodeList } from '../data/codeList.js';
import { useDrawer } from '../frame/drawer.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { inAndOutTexts } from './texts.js';

const formats: [CodebookFormat, string][] = [
  ['csv', inAndOutTexts.csv],
  ['xlsx', inAndOutTexts.xlsx],
  ['html', inAndOutTexts.html],
  ['docx', inAndOutTexts.docx],
  ['qdc', inAndOutTexts.refiQdaQdc],
];

/** The codebook as a file, and code lists from files. */
export function InAndOut({ study }: { study: number }) {
  const read = useReadCodeList(study);
  const input = useRef<HTMLInputElement>(null);
  const openDrawer = useDrawer();
  return (
    <section aria-label={inAndOutTexts.out} className="mt-6 flex flex-col gap-2">
      <h2 className="border-b border-rule pb-1">{inAndOutTexts.file}</h2>
      <p className="flex flex-wrap gap-x-3">
        {inAndOutTexts.download}
        {formats.map(([format, name]) => (
          <a
            key={format}
            className="underline"
            download
            href={`/api/studies/${study}/codebook/files/${format}`}
          >
            {name}
          </a>
        ))}
      </p>
      <input
        ref={input}
        type="file"
        aria-label={inAndOutTexts.codeListsFile}
        tabIndex={-1}
        className="sr-only"
        accept=".csv,.tsv,.txt,.xlsx,.ods,.qdc,.xml"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (!file) return;
          read.mutate(file, {
            onSuccess: (list) =>
              openDrawer({
                title: file.name,
                body: <ListPreview study={study} list={list} onDone={() => openDrawer(null)} />,
              }),
          });
        }}
      />
      <Button className="self-start" onClick={() => input.current?.click()}>
        {inAndOutTexts.bringCodeList}
      </Button>
      {read.isError && <ProblemNote error={read.error} />}
    </section>
  );
}

const what = {
  new: 'new',
  known: inAndOutTexts.already,
  filled: inAndOutTexts.alreadyBlankTextsFilled,
};

/** What a code list would bring, before anything is written. */
function ListPreview({
  study,
  list,
  onDone,
}: {
  study: number;
  list: CodeList;
  onDone: () => void;
}) {
  const take = useTakeCodeList(study);
  const fresh = list.codes.filter((code) => code.what === 'new').length;
  const filled = list.codes.filter((code) => code.what === 'filled').length;
  return (
    <div className="flex flex-col gap-4">
      <p>
        {inAndOutTexts.blankTextsFilled(fresh, list.newThemes.length, filled)}
        {list.intoBundles > 0 &&
          inAndOutTexts.codesPutIntoBundles(list.newBundles.length, list.intoBundles)}
        {inAndOutTexts.whatYouWroteYourself}
      </p>
      {list.left.length > 0 && (
        <ul className="text-brick">
          {list.left.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {take.isError && <ProblemNote error={take.error} />}
      <Button
        look="main"
        className="self-start"
        disabled={fresh + filled + list.intoBundles === 0 || take.isPending}
        onClick={() =>
          take.mutate(
            list.codes.map(({ theme, name, definition, include, exclude, bundles }) => ({
              theme,
              name,
              definition,
              include,
              exclude,
              bundles,
            })),
            { onSuccess: onDone },
          )
        }
      >
        {inAndOutTexts.take}
      </Button>
      <ul className="flex flex-col gap-1">
        {list.codes.map((code) => (
          <li key={code.name} className="flex items-baseline gap-2">
            <span className="min-w-0 flex-1">
              {code.theme && <span className="text-soft">{code.theme} / </span>}
              {code.name}
              {code.bundles.length > 0 && (
                <span className="text-soft"> {inAndOutTexts.in(code.bundles.join(', '))}</span>
              )}
            </span>
            <span className="shrink-0 text-[13px] text-soft">{what[code.what]}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
