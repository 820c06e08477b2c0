import type { StudyDetail } from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { reportFileAddress, respondentFileAddress } from '../data/report.js';
import { Menu, MenuFile, MenuTitle } from '../parts/menu.js';
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
  const table = [
    ['xlsx', 'Workbook (XLSX)', 'with all answers and their codes'],
    ['docx', 'Document (DOCX)', 'for a word processor'],
    ['html', 'Page (HTML)', 'to be shown, printed or saved as PDF'],
    ['csv', 'CSV', 'for any other program'],
  ] as const;
  const people = [
    ['zip', 'Data package (CSV)', 'with a data dictionary, as a ZIP'],
    ['xlsx', 'Workbook (XLSX)', 'with a data dictionary'],
  ] as const;
  return (
    <Menu
      name={
        <>
          <Download size={15} aria-hidden /> Files
        </>
      }
    >
      <MenuTitle>This table</MenuTitle>
      {table.map(([format, name, about]) => (
        <MenuFile
          key={format}
          name={name}
          about={about}
          address={reportFileAddress(study, question, format, query)}
          isPage={format === 'html'}
        />
      ))}
      <MenuTitle>One row a respondent, 0 and 1 for each code</MenuTitle>
      {people.map(([format, name, about]) => (
        <MenuFile
          key={format}
          name={name}
          about={about}
          address={respondentFileAddress(study, format)}
          isPage={false}
        />
      ))}
    </Menu>
  );
}
