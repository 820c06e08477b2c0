import type { ReportFormat, WriteUp } from '@yellow-thread/contract';
import { Download, Snowflake } from 'lucide-react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useFreezeWriteUp, writeUpFileAddress } from '../data/writeUps.js';
import { Button } from '../parts/button.js';
import { Menu, MenuItem } from '../parts/menu.js';
import { writeUpFilesTexts } from './texts.js';

const formats: [ReportFormat, string, string][] = [
  ['docx', writeUpFilesTexts.documentDocx, writeUpFilesTexts.wordProcessor],
  ['html', writeUpFilesTexts.pageHtml, writeUpFilesTexts.shownPrintedSavedPdf],
  ['xlsx', writeUpFilesTexts.workbookXlsx, writeUpFilesTexts.tablesAllAnswersCodes],
  ['csv', writeUpFilesTexts.csv, writeUpFilesTexts.tables],
];

/** The write-up as a file, and a frozen copy of it. */
export function WriteUpFiles({
  study,
  writeUp: { id, frozenAt },
  beforeFile,
}: {
  study: number;
  writeUp: WriteUp;
  /** Saves what is still waiting: the file is made of what is saved. */
  beforeFile: () => Promise<unknown>;
}) {
  const freeze = useFreezeWriteUp(study);
  const navigate = useNavigate();
  const open = async (format: ReportFormat) => {
    // a page opened later than the click would be held to be unasked for
    const page = format === 'html' ? window.open('about:blank') : null;
    await beforeFile();
    const address = writeUpFileAddress(study, id, format);
    if (page) page.location.href = address;
    else window.location.assign(address);
  };
  return (
    <span className="flex gap-2">
      {frozenAt === null && (
        <Button
          className="!px-2.5 !py-1"
          disabled={freeze.isPending}
          title={writeUpFilesTexts.keepDatedCopyChange}
          onClick={() =>
            void beforeFile().then(() => {
              const copy = crypto.randomUUID();
              freeze.mutate(
                { of: id, id: copy },
                {
                  onSuccess: () =>
                    toast(writeUpFilesTexts.keptFrozenCopy, {
                      action: {
                        label: writeUpFilesTexts.open,
                        onClick: () => void navigate(`../${copy}`, { relative: 'path' }),
                      },
                    }),
                },
              );
            })
          }
        >
          <Snowflake size={15} aria-hidden /> {writeUpFilesTexts.freezeCopy}
        </Button>
      )}
      <Menu
        name={
          <>
            <Download size={15} aria-hidden /> {writeUpFilesTexts.files}
          </>
        }
      >
        {formats.map(([format, name, about]) => (
          <MenuItem key={format} name={name} about={about} onSelect={() => void open(format)} />
        ))}
      </Menu>
    </span>
  );
}
