/**
 * What somebody typed as a new code: its name, or `theme / name` for a code under a theme.
 *
 * @returns the theme null where none is named
 * @example
 *   parseCodeName('fares / too dear') // { theme: 'fares', code: 'too dear' }
 */
export function parseCodeName(typed: string): { theme: string | null; code: string } {
  const [, theme = '', code = ''] = /^([^/]+?)\s+\/\s+(.+)$/u.exec(typed.trim()) ?? [];
  return theme === '' || code === ''
    ? { theme: null, code: typed.trim() }
    : { theme: theme.trim(), code: code.trim() };
}
