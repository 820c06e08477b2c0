import { foldedName, type CodeFields, type CodingSide } from './codingSide.js';

/** What was done to a code of both sides that is not the same on both. */
export interface CodeDifference {
  id: string;
  here: CodeFields;
  there: CodeFields;
}

export interface MergedCodes {
  /** Which code of this side one of the other side is; one that is new here stands for itself. */
  codeHere: (id: string) => string;
  themeHere: (id: string | null) => string | null;
  /** Themes and codes of the other side that this one has not. */
  newThemes: string[];
  newCodes: string[];
  /** Codes that were changed there alone: they become as they are there. */
  updated: CodeDifference[];
  /** Codes that were changed on both sides, or of which that is not known: they stay as they are here. */
  conflicts: CodeDifference[];
  /** Codes of the other side that are one of the same name here. */
  sameName: [there: string, here: string][];
  /** Codes of the other side that were merged here, and into which. */
  mergedHere: [there: string, into: string][];
  /** Codes of this side that were merged there, and into which. */
  mergedThere: [here: string, into: string][];
}

/**
 * Which code of the other side is which here: by identity, where it was merged here by what it was merged into, else by
 * name; and what becomes of those that differ.
 */
export function mergeCodes(here: CodingSide, there: CodingSide): MergedCodes {
  const themes = matchThemes(here, there);
  const byName = new Map(
    [...here.codes]
      .filter(([id]) => !there.codes.has(id))
      .map(([id, { name }]) => [foldedName(name), id]),
  );
  const known = new Map<string, string>();
  const sameName: MergedCodes['sameName'] = [];
  const mergedHere: MergedCodes['mergedHere'] = [];
  const newCodes: string[] = [];
  for (const [id, { name }] of there.codes) {
    const into = here.codes.has(id) ? id : endOf(id, here.mergedInto);
    const named = byName.get(foldedName(name));
    if (here.codes.has(id)) known.set(id, id);
    else if (into !== id && here.codes.has(into)) {
      known.set(id, into);
      mergedHere.push([id, into]);
    } else if (named !== undefined) {
      known.set(id, named);
      sameName.push([id, named]);
    } else newCodes.push(id);
  }
  const differing = differences(here, there, themes.themeHere);
  return {
    codeHere: (id) => known.get(id) ?? endOf(id, here.mergedInto),
    themeHere: themes.themeHere,
    newThemes: themes.added,
    newCodes,
    ...apart(differing, here, there),
    ...{ sameName, mergedHere },
    mergedThere: [...there.mergedInto.keys()]
      .filter((id) => here.codes.has(id) && !there.codes.has(id))
      .map((id) => [id, endOf(id, there.mergedInto)]),
  };
}

/** What something was merged into in the end. */
function endOf(id: string, mergedInto: ReadonlyMap<string, string>): string {
  const met = new Set<string>();
  let at = id;
  for (
    let next = mergedInto.get(at);
    next !== undefined && !met.has(next);
    next = mergedInto.get(at)
  ) {
    met.add(next);
    at = next;
  }
  return at;
}

function matchThemes(here: CodingSide, there: CodingSide) {
  const byName = new Map([...here.themes].map(([id, { name }]) => [foldedName(name), id]));
  const known = new Map<string, string>();
  const added: string[] = [];
  for (const [id, { name }] of there.themes) {
    const found = here.themes.has(id) ? id : byName.get(foldedName(name));
    if (found === undefined) added.push(id);
    else known.set(id, found);
  }
  return { added, themeHere: (id: string | null) => (id === null ? null : (known.get(id) ?? id)) };
}

/** Codes of both sides that are not the same on both. */
function differences(
  here: CodingSide,
  there: CodingSide,
  themeHere: MergedCodes['themeHere'],
): CodeDifference[] {
  return [...there.codes].flatMap(([id, code]) => {
    const own = here.codes.get(id);
    if (!own) return [];
    const asHere = { ...code, themeId: themeHere(code.themeId) };
    const isSame = (Object.keys(own) as (keyof CodeFields)[]).every(
      (key) => own[key] === asHere[key],
    );
    return isSame ? [] : [{ id, here: own, there: asHere }];
  });
}

/** Takes apart what was changed there alone, here alone, and on both sides. A name that another code has stays here. */
function apart(
  differing: readonly CodeDifference[],
  here: CodingSide,
  there: CodingSide,
): Pick<MergedCodes, 'updated' | 'conflicts'> {
  const updated: CodeDifference[] = [];
  const conflicts: CodeDifference[] = [];
  const taken = new Map([...here.codes].map(([id, { name }]) => [foldedName(name), id]));
  for (const one of differing) {
    const [editedHere, editedThere] = [here.edited.has(one.id), there.edited.has(one.id)];
    const holder = taken.get(foldedName(one.there.name)) ?? one.id;
    if (editedHere && !editedThere) continue;
    if (editedThere && !editedHere && holder === one.id) {
      taken.delete(foldedName(one.here.name));
      taken.set(foldedName(one.there.name), one.id);
      updated.push(one);
    } else conflicts.push(one);
  }
  return { updated, conflicts };
}
