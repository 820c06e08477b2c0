import type { StudyDetail } from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { reportFileAddress, respondentFileAddress } from '../data/report.js';
import { useTableChoice } from './tableChoice.js';

/** Everything that leaves the report as a file. */
export function FilesMenu({
  study: { id: study, variables },
  question,
}: {
  study: StudyDetail;
  question: number;
}) {
  const [{ query }] = useTableChoice(variables);
  const file = (format: 'csv' | 'xlsx' | 'html' | 'docx') =>
    reportFileAddress(study, question, format, query);
  const items: { title: string; files: [string, string, string][] }[] = [
    {
      title: 'This table',
      files: [
        ['Workbook (XLSX)', 'with all answers and their codes', file('xlsx')],
        ['Document (DOCX)', 'for a word processor', file('docx')],
        ['Page (HTML)', 'to be shown, printed or saved as PDF', file('html')],
        ['CSV', 'for any other program', file('csv')],
      ],
    },
    {
      title: 'One row a respondent, 0 and 1 for each code',
      files: [
        [
          'Data package (CSV)',
          'with a data dictionary, as a ZIP',
          respondentFileAddress(study, 'zip'),
        ],
        ['Workbook (XLSX)', 'with a data dictionary', respondentFileAddress(study, 'xlsx')],
      ],
    },
  ];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="inline-flex items-center gap-1.5 rounded border border-rule bg-card px-2.5 py-1 font-medium hover:border-soft">
        <Download size={15} aria-hidden /> Files
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-30 w-80 rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
        >
          {items.map(({ title, files }) => (
            <DropdownMenu.Group key={title}>
              <DropdownMenu.Label className="px-3 pb-1 pt-2 text-[13px] text-soft">
                {title}
              </DropdownMenu.Label>
              {files.map(([name, what, address]) => (
                <DropdownMenu.Item key={address} asChild>
                  <a
                    href={address}
                    {...(address.includes('/html') ? { target: '_blank' } : { download: true })}
                    className="flex items-baseline justify-between gap-4 rounded px-3 py-1 outline-none data-[highlighted]:bg-wash"
                  >
                    <span className="whitespace-nowrap font-medium">{name}</span>
                    <span className="text-right text-[13px] text-soft">{what}</span>
                  </a>
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
