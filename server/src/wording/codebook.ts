/** codebook/codebook.ts */
export const codebookTexts = {
  newCode: (code: string) => `the new code “${code}”`,
  edit: (stored: string) => `the edit of “${stored}”`,
  outAgain: 'out again',
  newTheme: (theme: string) => `the new theme “${theme}”`,
  look: (stored: string) => `the look of “${stored}”`,
  renaming: (stored: string) => `the renaming of “${stored}”`,
  moving: (stored: string) => `the moving of “${stored}”`,
  under: (theme: string) => `under “${theme}”`,
  underNoTheme: 'under no theme',
  moving2: (name: string) => `the moving of “${name}”`,
  removalTheme: (theme: string) => `the removal of the theme “${theme}”`,
};

/** codebook/bundles.ts */
export const bundlesTexts = {
  bundle: (from: string) => `the bundle “${from}”`,
  newBundle: (to: string) => `the new bundle “${to}”`,
  removalBundle: (bundle: string) => `the removal of the bundle “${bundle}”`,
};

/** codebook/reshape.ts */
export const reshapeTexts = {
  mergeInto: (code: string, target: string) => `the merge of “${code}” into “${target}”`,
  removal: (code: string) => `the removal of “${code}”`,
  sorting: (names: string, from: number) => `the sorting of ${names}${from > 3 ? ' …' : ''}`,
  makingTheme: (code: string) => `making “${code}” a theme`,
  makingThemeCode: (theme: string) => `making the theme “${theme}” a code`,
};
