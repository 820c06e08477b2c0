import type { ReportFormat, WriteUp } from '@yellow-thread/contract';
import { Download, Snowflake } from 'lucide-react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useFreezeWriteUp, writeUpFileAddress } from '../data/writeUps.js';
import { Button } from '../parts/button.js';
import { Menu, MenuItem } from '../parts/menu.js';

const formats: [ReportFormat, string, string][] = [
  ['docx', 'Document (DOCX)', 'for a word processor'],
  ['html', 'Page (HTML)', 'to be shown, printed or saved as PDF'],
  ['xlsx', 'Workbook (XLSX)', 'its tables, and all answers with codes'],
  ['csv', 'CSV', 'its tables'],
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
          title="Keep a dated copy that does not change any more"
          onClick={() =>
            void beforeFile().then(() => {
              const copy = crypto.randomUUID();
              freeze.mutate(
                { of: id, id: copy },
                {
                  onSuccess: () =>
                    toast('Kept a frozen copy.', {
                      action: {
                        label: 'Open it',
                        onClick: () => void navigate(`../${copy}`, { relative: 'path' }),
                      },
                    }),
                },
              );
            })
          }
        >
          <Snowflake size={15} aria-hidden /> Freeze a copy
        </Button>
      )}
      <Menu
        name={
          <>
            <Download size={15} aria-hidden /> Files
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
