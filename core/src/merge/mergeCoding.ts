import { keyOfSettled, type CodingSide, type GivenCode, type SettledAnswer } from './codingSide.js';
import { mergeCodes, type MergedCodes } from './mergeCodes.js';

/** An answer that both sides settled apart, as each coded it: codes by their ids here. */
export interface DoubleCoded {
  answer: number;
  /** Who coded it there. */
  coder: string;
  here: string[];
  there: string[];
}

/** What becomes of this side when the other side's coding is brought in. Codes are named by their ids here. */
export interface MergedCoding extends MergedCodes {
  mentions: {
    added: [id: string, mention: GivenCode][];
    updated: [id: string, mention: GivenCode][];
    removed: string[];
    /** Those of the other side for which the same code stands at the same place here. */
    same: number;
    /** Changed on both sides, or not known where: they stay as they are here. */
    conflicts: number;
    /** Of answers that were settled here, and not there. */
    leftOut: number;
  };
  settlements: SettledAnswer[];
  notes: { added: string[]; updated: string[]; removed: string[] };
  /** Answers that both settled apart: neither coding replaces the other. */
  doubleCoded: DoubleCoded[];
}

/**
 * Brings together the coding of two copies of a study that were worked on apart.
 *
 * Three ways: what one side alone changed, added or removed since they parted is as on that side; what both changed stays
 * as it is here, and is counted. Where there is no such conflict, merging this into that gives the same as that into
 * this; merging twice brings nothing twice. (Three-way merge: common practice of version control, no source.)
 *
 * @param read whether answers that both settled apart were brought in before, by answer and the coder there
 */
export function mergeCoding(
  here: CodingSide,
  there: CodingSide,
  read: (answer: number, coder: string) => boolean = () => false,
): MergedCoding {
  const codes = mergeCodes(here, there);
  const settled = mergeSettlements(here, there);
  const doubleAnswers = new Map(settled.both.map(({ answer, coder }) => [answer, coder] as const));
  const mentions = mergeMentions(here, there, {
    codeHere: codes.codeHere,
    isApart: (answer) => doubleAnswers.has(answer),
    isClosed: settled.isClosedHere,
  });
  const doubleCoded = [...doubleAnswers]
    .filter(([answer, coder]) => !read(answer, coder))
    .map(([answer, coder]) => ({
      ...{ answer, coder },
      here: codesOf(here, answer, (id) => id),
      there: codesOf(there, answer, codes.codeHere),
    }));
  const used = new Set([
    ...mentions.added.map(([, { codeId }]) => codeId),
    ...mentions.updated.map(([, { codeId }]) => codeId),
    ...doubleCoded.flatMap((one) => one.there),
  ]);
  const newCodes = codes.newCodes.filter((id) => !here.removed.has(id) || used.has(id));
  const themes = new Set(newCodes.map((id) => there.codes.get(id)!.themeId));
  for (const { there: fields } of codes.updated) themes.add(fields.themeId);
  return {
    ...codes,
    newCodes,
    newThemes: codes.newThemes.filter((id) => !here.removed.has(id) || themes.has(id)),
    ...{ mentions, doubleCoded },
    settlements: settled.added,
    notes: mergeNotes(here, there),
  };
}

/** The codes that an answer has, each once. */
function codesOf(side: CodingSide, answer: number, codeHere: (id: string) => string): string[] {
  const found = mentionsByAnswer(side).get(answer) ?? [];
  return [...new Set(found.map(({ codeId }) => codeHere(codeId)))];
}

const byAnswer = new WeakMap<CodingSide, Map<number, GivenCode[]>>();
function mentionsByAnswer(side: CodingSide): Map<number, GivenCode[]> {
  const known = byAnswer.get(side);
  if (known) return known;
  const made = new Map<number, GivenCode[]>();
  for (const mention of side.mentions.values()) {
    const list = made.get(mention.answer);
    if (list) list.push(mention);
    else made.set(mention.answer, [mention]);
  }
  byAnswer.set(side, made);
  return made;
}

function mergeSettlements(here: CodingSide, there: CodingSide) {
  const ours = new Set(here.settlements.map(keyOfSettled));
  const theirs = new Set(there.settlements.map(keyOfSettled));
  const onlyThere = there.settlements.filter((one) => !ours.has(keyOfSettled(one)));
  const onlyHere = new Set(
    here.settlements.filter((one) => !theirs.has(keyOfSettled(one))).map(({ answer }) => answer),
  );
  const settledThere = new Set(there.settlements.map(({ answer }) => answer));
  return {
    both: onlyThere.filter(({ answer }) => onlyHere.has(answer)),
    added: onlyThere.filter(({ answer }) => !onlyHere.has(answer)),
    /** Settled here since the copies parted, and not there. */
    isClosedHere: (answer: number) => onlyHere.has(answer) && !settledThere.has(answer),
  };
}

const placeOf = ({ answer, codeId, start, end }: GivenCode): string =>
  `${answer} ${codeId} ${start ?? ''} ${end ?? ''}`;

function mergeMentions(
  here: CodingSide,
  there: CodingSide,
  {
    codeHere,
    isApart,
    isClosed,
  }: {
    codeHere: (id: string) => string;
    isApart: (answer: number) => boolean;
    isClosed: (answer: number) => boolean;
  },
): MergedCoding['mentions'] {
  const merged: MergedCoding['mentions'] = {
    ...{ added: [], updated: [], removed: [] },
    ...{ same: 0, conflicts: 0, leftOut: 0 },
  };
  for (const id of there.removed) {
    const own = here.mentions.get(id);
    if (!own || there.mentions.has(id) || isApart(own.answer)) continue;
    if (here.edited.has(id)) merged.conflicts += 1;
    else merged.removed.push(id);
  }
  const gone = new Set(merged.removed);
  const places = new Set(
    [...here.mentions].filter(([id]) => !gone.has(id)).map(([, mention]) => placeOf(mention)),
  );
  for (const [id, given] of there.mentions) {
    if (isApart(given.answer)) continue;
    const mention = { ...given, codeId: codeHere(given.codeId) };
    const own = here.mentions.get(id);
    const isNew = !places.has(placeOf(mention));
    if (own) {
      if (placeOf(own) === placeOf(mention) && own.typical === mention.typical) continue;
      const [editedHere, editedThere] = [here.edited.has(id), there.edited.has(id)];
      if (editedHere && !editedThere) continue;
      if (editedThere && !editedHere && (isNew || placeOf(own) === placeOf(mention))) {
        places.delete(placeOf(own));
        places.add(placeOf(mention));
        merged.updated.push([id, mention]);
      } else merged.conflicts += 1;
    } else if (here.removed.has(id)) merged.conflicts += there.edited.has(id) ? 1 : 0;
    else if (!isNew) merged.same += 1;
    else if (isClosed(given.answer)) merged.leftOut += 1;
    else {
      places.add(placeOf(mention));
      merged.added.push([id, mention]);
    }
  }
  return merged;
}

function mergeNotes(here: CodingSide, there: CodingSide): MergedCoding['notes'] {
  const added: string[] = [];
  const updated: string[] = [];
  for (const [id, note] of there.notes) {
    const own = here.notes.get(id);
    if (!own) {
      if (!here.removed.has(id)) added.push(id);
    } else if (own.text !== note.text || own.unsure !== note.unsure) {
      if (there.edited.has(id) && !here.edited.has(id)) updated.push(id);
    }
  }
  const removed = [...there.removed].filter(
    (id) => here.notes.has(id) && !there.notes.has(id) && !here.edited.has(id),
  );
  return { added, updated, removed };
}
