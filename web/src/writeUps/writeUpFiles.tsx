import type { ReportFormat, WriteUp } from '@yellow-thread/contract';
import { Download, Snowflake } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useFreezeWriteUp, writeUpFileAddress } from '../data/writeUps.js';
import { Button } from '../parts/button.js';

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
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="inline-flex items-center gap-1.5 rounded border border-rule bg-card px-3 py-1.5 font-medium hover:border-soft">
          <Download size={15} aria-hidden /> Files
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-30 w-80 rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
          >
            {formats.map(([format, name, what]) => (
              <DropdownMenu.Item
                key={format}
                onSelect={() => void open(format)}
                className="flex cursor-pointer items-baseline justify-between gap-4 rounded px-3 py-1 outline-none data-[highlighted]:bg-wash"
              >
                <span className="whitespace-nowrap font-medium">{name}</span>
                <span className="text-right text-[13px] text-soft">{what}</span>
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </span>
  );
}
