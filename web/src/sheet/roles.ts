import type { ColumnRole } from '@yellow-thread/contract';

export const roleNames: Record<ColumnRole, string> = {
  id: 'respondent id',
  question: 'open question',
  category: 'background: category',
  number: 'background: number',
  date: 'background: date',
  yes_no: 'background: yes or no',
  ticked: 'background: tick box',
  choices: 'background: several choices',
  weight: 'weight',
  codes: 'existing codes',
  leave_out: 'exclude',
};
