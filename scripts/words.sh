#!/usr/bin/env bash
# Makes what the models know of English before they see an answer, unless it is there: vectors of words, and the
# encoder of sentences. The models do without either, only not as well.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$PROJECT"
[ -f server/words/english.bin ] || node --import tsx scripts/wordVectors.mts server/words/english.bin ||
  say 'The vectors of English words could not be made: the models do without them.'
[ -f server/words/sentences.bin ] || node --import tsx scripts/sentenceEncoder.mts server/words/sentences.bin ||
  say 'The encoder of English sentences could not be made: the models do without it.'
