import type { Question, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useSignOut } from '../data/people.js';
import { useHistory } from '../data/studies.js';
import { useGlobalCommands } from './commands.js';
import { frameCommands, frameHelp } from './frameCommands.js';
import { useShowKeys } from './keys.js';
import { Palette } from './palette.js';

/** The keys that do the same on every page of a study, and the palette that one of them opens. */
export function FrameKeys({ study, question }: { study: StudyDetail; question: Question | null }) {
  const [isOpen, setIsOpen] = useState(false);
  const { undo, redo } = useHistory(study.id);
  const showKeys = useShowKeys(frameHelp);
  const signOut = useSignOut();
  const frame = {
    openPalette: () => setIsOpen((was) => !was),
    undo,
    redo,
    showKeys,
    signOut: () => signOut.mutate(undefined),
  };
  useGlobalCommands(frameCommands, frame);
  return (
    <Palette study={study} question={question} frame={frame} open={isOpen} onOpen={setIsOpen} />
  );
}
