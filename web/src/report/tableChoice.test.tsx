import { expect, test } from '@jest/globals';
import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { readTableChoice, useTableChoice } from './tableChoice.js';

test('what makes no sense in an address is as if it were not there', () => {
  const choice = readTableChoice(
    new URLSearchParams('by=12&cells=nonsense&low=-3&lowest=5&folded=a,b'),
    '7',
  );
  expect(choice).toMatchObject({ by: '12', cells: 'percent', low: 30, lowest: 5 });
  expect(choice.folded).toEqual(['a', 'b']);
  expect(readTableChoice(new URLSearchParams('level=50'), '7')).toMatchObject({ by: '7' });
});

test('two choices that are made before the page is drawn are both kept', () => {
  const { result } = renderHook(() => useTableChoice([]), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <MemoryRouter initialEntries={['/report?interval=true']}>{children}</MemoryRouter>
    ),
  });
  act(() => {
    result.current[1]({ cells: 'people' });
    result.current[1]({ base: 'mentions', interval: null });
  });
  expect(result.current[0]).toMatchObject({ cells: 'people', base: 'mentions', interval: false });
});
