import type { StudyDetail } from '@yellow-thread/contract';
import { Download } from 'lucide-react';
import { reportFileAddress, respondentFileAddress } from '../data/report.js';
import { useMay } from '../frame/access.js';
import { Menu, MenuFile, MenuTitle } from '../parts/menu.js';
import { useTableChoice } from './tableChoice.js';
import { filesMenuTexts } from './texts.js';

/** Everything that leaves the report as a file. */
export function FilesMenu({
  study: { id: study, variables },
  question,
}: {
  study: StudyDetail;
  question: number;
}) {
  const [{ query }] = useTableChoice(variables);
  const isResearch = useMay('research');
  const table = [
    ['xlsx', filesMenuTexts.workbookXlsx, filesMenuTexts.allAnswersCodes],
    ['docx', filesMenuTexts.documentDocx, filesMenuTexts.wordProcessor],
    ['html', filesMenuTexts.pageHtml, filesMenuTexts.shownPrintedSavedPdf],
    ['csv', filesMenuTexts.csv, filesMenuTexts.anyOtherProgram],
    ['zip', filesMenuTexts.tidy, filesMenuTexts.forStatistics],
  ] as const;
  const people = [
    ['zip', filesMenuTexts.dataPackageCsv, filesMenuTexts.dataDictionaryZip],
    ['xlsx', filesMenuTexts.workbookXlsx, filesMenuTexts.dataDictionary],
  ] as const;
  return (
    <Menu
      name={
        <>
          <Download size={15} aria-hidden /> {filesMenuTexts.files}
        </>
      }
    >
      <MenuTitle>{filesMenuTexts.table}</MenuTitle>
      {table.map(([format, name, about]) => (
        <MenuFile
          key={format}
          name={name}
          about={about}
          address={reportFileAddress(study, question, format, query)}
          isPage={format === 'html'}
        />
      ))}
      {isResearch && <MenuTitle>{filesMenuTexts.oneRowRespondent0}</MenuTitle>}
      {isResearch &&
        people.map(([format, name, about]) => (
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
