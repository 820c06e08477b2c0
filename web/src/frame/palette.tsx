import { hasAccess, type Access, type Question, type StudyDetail } from '@yellow-thread/contract';
import { foldForSearch } from '@yellow-thread/core/text';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { restrictTo, useGroups } from '../data/groups.js';
import { StitchMark } from '../parts/stitch.js';
import { accessOfPage, STOP_ACCESS } from './access.js';
import { menuLabel, menuOf } from './commands.js';
import { frameCommands, type FrameActions } from './frameCommands.js';
import { useScreenActionsNow, type ScreenAction } from './keys.js';
import { STOPS, stopPath } from './studyLocation.js';
import { paletteTexts } from './texts.js';

const item =
  'flex items-center gap-2 rounded px-3 py-1.5 aria-selected:bg-wash data-[disabled=true]:opacity-50';
const group =
  '[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-soft';

interface PaletteProps {
  study: StudyDetail;
  question: Question | null;
  frame: FrameActions;
}

/** Reaches every stop, question, code, group and action by a few letters. */
export function Palette({
  open,
  onOpen,
  ...choices
}: PaletteProps & { open: boolean; onOpen: (open: boolean) => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-[#23211c33]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[12vh] z-40 w-[560px] max-w-[92vw] -translate-x-1/2 rounded border border-rule bg-card shadow-[0_12px_40px_#00000029]"
        >
          <Dialog.Title className="sr-only">{paletteTexts.goAnything}</Dialog.Title>
          <Command label={paletteTexts.goAnything} filter={rank}>
            <Command.Input
              placeholder={paletteTexts.stopQuestionCodeAction}
              className="w-full border-b-2 border-thread bg-transparent px-4 py-3 text-[16px] outline-none placeholder:text-soft"
            />
            <Choices {...choices} onDone={() => onOpen(false)} />
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Pages beside the stops, by their addresses within the study. */
const PAGES: readonly (readonly [path: string, name: string])[] = [
  ['respondents', paletteTexts.respondents],
  ['about', paletteTexts.studyPurposeQuestionsWhat],
  ['codebook', paletteTexts.codebook],
  ['maps', paletteTexts.maps],
  ['groups', paletteTexts.groups],
  ['write-ups', paletteTexts.writeUps],
  ['notes', paletteTexts.notes],
  ['team', paletteTexts.teamWhoWorksStudy],
  ['history', paletteTexts.historyWhatChangedWhom],
  ['help', paletteTexts.helpGuideTermsStatistics],
];

type ChoicesProps = PaletteProps & { onDone: () => void };

/** All that can be gone to or done; follows the codebook only while it is open. */
function Choices(props: ChoicesProps) {
  return (
    <Command.List className="max-h-[55vh] overflow-y-auto p-2">
      <Command.Empty className="px-3 py-6 text-soft">{paletteTexts.nothingCalled}</Command.Empty>
      <Places {...props} />
      <Actions {...props} />
      <GroupsAndCodes {...props} />
    </Command.List>
  );
}

function Places({ study, question, onDone }: ChoicesProps) {
  const navigate = useNavigate();
  const go = (path: string) => () => {
    onDone();
    void navigate(path);
  };
  const base = `/studies/${study.id}`;
  const may = (access: Access) => hasAccess(study.role, access);
  const [firstStop = 'import'] = STOPS.filter(({ key }) => key !== 'import' && key !== 'look')
    .map(({ key }) => key)
    .filter((key) => may(STOP_ACCESS[key]));
  return (
    <>
      <Command.Group heading={paletteTexts.stops} className={group}>
        {STOPS.filter(({ key }) => may(STOP_ACCESS[key]) && (key === 'import' || question)).map(
          ({ key, name }) => (
            <Command.Item
              key={key}
              className={item}
              onSelect={go(stopPath(study.id, key, question?.id))}
            >
              {name}
            </Command.Item>
          ),
        )}
        {PAGES.filter(([path]) => may(accessOfPage(path))).map(([path, name]) => (
          <Command.Item key={path} className={item} onSelect={go(`${base}/${path}`)}>
            {name}
          </Command.Item>
        ))}
        {question && may('coding') && (
          <Command.Item
            className={item}
            onSelect={go(`${base}/questions/${question.id}/second-reading`)}
          >
            {paletteTexts.secondReadingsHowFar}
          </Command.Item>
        )}
        <Command.Item className={item} onSelect={go('/studies')}>
          {paletteTexts.studies}
        </Command.Item>
      </Command.Group>
      <Command.Group heading={paletteTexts.questions} className={group}>
        {study.questions.map((one) => (
          <Command.Item
            key={one.id}
            value={`${one.label} ${one.wording}`}
            className={item}
            onSelect={go(stopPath(study.id, firstStop, one.id))}
          >
            <span className="font-serif">{one.wording}</span>
          </Command.Item>
        ))}
      </Command.Group>
    </>
  );
}

/** What can be done here, and everywhere. */
function Actions({ frame, onDone }: ChoicesProps) {
  const here = useScreenActionsNow();
  const [actions] = useState<readonly ScreenAction[]>(() => [
    ...here.current(),
    ...menuOf(frameCommands, frame),
  ]);
  return (
    <Command.Group heading={paletteTexts.actions} className={group}>
      {actions.map(({ id, keys, does, run }) => (
        <Command.Item
          key={id}
          value={does}
          className={item}
          onSelect={() => {
            onDone();
            run();
          }}
        >
          {menuLabel(does)}
          {keys && <kbd className="ml-auto">{keys}</kbd>}
        </Command.Item>
      ))}
    </Command.Group>
  );
}

function GroupsAndCodes({ study, onDone }: ChoicesProps) {
  const navigate = useNavigate();
  const codebook = useDrawnCodebook(study.id);
  const groups = useGroups(study.id).data?.groups ?? [];
  return (
    <>
      <Command.Group heading={paletteTexts.groups} className={group}>
        {groups.map(({ id, name }) => (
          <Command.Item
            key={id}
            className={item}
            onSelect={() => {
              onDone();
              restrictTo(study.id, id);
            }}
          >
            {paletteTexts.lookOnly(name)}
          </Command.Item>
        ))}
      </Command.Group>
      <Command.Group heading={paletteTexts.codes} className={group}>
        {codebook?.codes.map((code) => (
          <Command.Item
            key={code.id}
            value={`${code.name} ${code.themeName ?? ''}`}
            className={item}
            onSelect={() => {
              onDone();
              void navigate(`/studies/${study.id}/codebook?code=${code.id}`);
            }}
          >
            <StitchMark look={code.look} />
            {code.name}
            <span className="text-soft">{code.themeName}</span>
          </Command.Item>
        ))}
      </Command.Group>
    </>
  );
}

/** What begins with the letters comes first, then what has a word that does, then what holds them. */
function rank(value: string, typed: string): number {
  const name = foldForSearch(value);
  const letters = foldForSearch(typed);
  if (name.startsWith(letters)) return 1;
  if (name.includes(` ${letters}`)) return 0.8;
  return name.includes(letters) ? 0.5 : 0;
}
