import type { ColumnRole } from '@yellow-thread/contract';
import { rolesTexts } from './texts.js';

export const roleNames: Record<ColumnRole, string> = {
  id: rolesTexts.respondentId,
  question: rolesTexts.openQuestion,
  category: rolesTexts.backgroundCategory,
  number: rolesTexts.backgroundNumber,
  date: rolesTexts.backgroundDate,
  yes_no: rolesTexts.backgroundYesNo,
  ticked: rolesTexts.backgroundTickBox,
  choices: rolesTexts.backgroundSeveralChoices,
  weight: 'weight',
  codes: rolesTexts.existingCodes,
  leave_out: 'exclude',
};
