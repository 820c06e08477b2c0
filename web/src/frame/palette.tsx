import type { Question, StudyDetail } from '@yellow-thread/contract';
import { foldForSearch } from '@yellow-thread/core/text';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { restrictTo, useGroups } from '../data/groups.js';
import { useSignOut } from '../data/people.js';
import { useHistory } from '../data/studies.js';
import { StitchMark } from '../parts/stitch.js';
import { useShowKeys } from './keys.js';
import { STOPS, stopPath } from './studyLocation.js';
import { paletteTexts } from './texts.js';

const item =
  'flex items-center gap-2 rounded px-3 py-1.5 aria-selected:bg-wash data-[disabled=true]:opacity-50';
const group =
  '[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-soft';

interface PaletteProps {
  study: StudyDetail;
  question: Question | null;
}

/** Reaches every stop, question, code, group and action by a few letters. */
export function Palette(place: PaletteProps) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      setOpen((was) => !was);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
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
            <Choices {...place} onDone={() => setOpen(false)} />
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** All that can be gone to or done; follows the codebook only while it is open. */
function Choices({ study, question, onDone }: PaletteProps & { onDone: () => void }) {
  const navigate = useNavigate();
  const codebook = useDrawnCodebook(study.id);
  const groups = useGroups(study.id).data?.groups ?? [];
  const showKeys = useShowKeys();
  const { undo, redo } = useHistory(study.id);
  const signOut = useSignOut();
  const pick = (act: () => void) => () => {
    onDone();
    act();
  };
  const go = (path: string) => pick(() => void navigate(path));
  return (
    <Command.List className="max-h-[55vh] overflow-y-auto p-2">
      <Command.Empty className="px-3 py-6 text-soft">{paletteTexts.nothingCalled}</Command.Empty>
      <Command.Group heading={paletteTexts.stops} className={group}>
        {STOPS.filter(({ key }) => key === 'import' || question).map(({ key, name }) => (
          <Command.Item
            key={key}
            className={item}
            onSelect={go(stopPath(study.id, key, question?.id))}
          >
            {name}
          </Command.Item>
        ))}
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/respondents`)}>
          {paletteTexts.respondents}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/about`)}>
          {paletteTexts.studyPurposeQuestionsWhat}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/codebook`)}>
          {paletteTexts.codebook}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/groups`)}>
          {paletteTexts.groups}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/write-ups`)}>
          {paletteTexts.writeUps}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/notes`)}>
          {paletteTexts.notes}
        </Command.Item>
        {question && (
          <Command.Item
            className={item}
            onSelect={go(`/studies/${study.id}/questions/${question.id}/second-reading`)}
          >
            {paletteTexts.secondReadingsHowFar}
          </Command.Item>
        )}
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/team`)}>
          {paletteTexts.teamWhoWorksStudy}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/history`)}>
          {paletteTexts.historyWhatChangedWhom}
        </Command.Item>
        <Command.Item className={item} onSelect={go(`/studies/${study.id}/help`)}>
          {paletteTexts.helpGuideTermsStatistics}
        </Command.Item>
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
            onSelect={go(stopPath(study.id, 'code', one.id))}
          >
            <span className="font-serif">{one.wording}</span>
          </Command.Item>
        ))}
      </Command.Group>
      <Command.Group heading={paletteTexts.actions} className={group}>
        <Command.Item className={item} onSelect={pick(undo)}>
          {paletteTexts.undo}
        </Command.Item>
        <Command.Item className={item} onSelect={pick(redo)}>
          {paletteTexts.redo}
        </Command.Item>
        <Command.Item className={item} onSelect={pick(showKeys)}>
          {paletteTexts.keysScreen}
        </Command.Item>
        <Command.Item className={item} onSelect={pick(() => signOut.mutate(undefined))}>
          {paletteTexts.signOut}
        </Command.Item>
      </Command.Group>
      <Command.Group heading={paletteTexts.groups} className={group}>
        {groups.map(({ id, name }) => (
          <Command.Item key={id} className={item} onSelect={pick(() => restrictTo(study.id, id))}>
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
            onSelect={go(`/studies/${study.id}/codebook?code=${code.id}`)}
          >
            <StitchMark look={code.look} />
            {code.name}
            <span className="text-soft">{code.themeName}</span>
          </Command.Item>
        ))}
      </Command.Group>
    </Command.List>
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
